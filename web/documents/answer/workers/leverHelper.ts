import { leverPart } from './leverPart';
import { helpWith } from './shareOut';

helpWith(self, leverPart);
