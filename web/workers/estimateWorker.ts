import { expose } from 'comlink';
import { explain } from '@zugluft/core/envelope/explain';
import { stripStates } from '@zugluft/core/envelope/stripStates';
import { estimate, readPoint } from '@zugluft/core/estimate';

const api = { estimate, readPoint, explain, stripStates };

export type EstimateWorker = typeof api;

expose(api);
