import { inTurn } from '../derived/inTurn';
import { doRunJob } from './runJobs';

// reads and analyses logs beside the server's own thread
inTurn(doRunJob);
