import { inTurn } from '../derived/inTurn';
import { doPictureJob } from './pictureJobs';

// measures in photos beside the server's own thread
inTurn(doPictureJob);
