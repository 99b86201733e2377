import { computeWatts } from './computeWatts';
import { inTurn } from './inTurn';

// computes watts beside the server's own thread, so that no request waits for them
inTurn(computeWatts);
