import { expose } from 'comlink';
import { explain } from '@zugluft/core/envelope/explain';
import { stripStates } from '@zugluft/core/envelope/stripStates';
import { estimate, readPoint } from '@zugluft/core/estimate';
import { simulateFirmware } from '@zugluft/core/transient/simulateFirmware';

const api = { estimate, readPoint, explain, stripStates, simulateFirmware };

export type EstimateWorker = typeof api;

expose(api);
