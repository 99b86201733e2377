import { inTurn } from '../derived/inTurn';
import { doTextJob } from './textPieces';

// parses large files beside the server's own thread
inTurn(doTextJob);
