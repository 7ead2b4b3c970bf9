import * as Comlink from 'comlink';
import { makeTraceWorker } from '../recorded/traceWorker';

Comlink.expose(makeTraceWorker());
