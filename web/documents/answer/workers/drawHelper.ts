import { drawPart } from './drawPart';
import { helpWith } from './shareOut';

helpWith(self, drawPart);
