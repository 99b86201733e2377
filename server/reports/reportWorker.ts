import { inTurn } from '../derived/inTurn';
import { makeReport } from './makeReport';

// makes reports beside the server's own thread
inTurn(makeReport);
