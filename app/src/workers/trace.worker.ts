import * as Comlink from 'comlink';
import { makeTraceWorker } from '../trace/traceWorker';

Comlink.expose(makeTraceWorker());
