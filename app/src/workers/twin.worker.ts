import * as Comlink from 'comlink';
import { FRAME_MS, makeBay } from '../bay/bayWorker';

const bay = makeBay(() => performance.now());
setInterval(() => bay.tick(), FRAME_MS);
Comlink.expose(bay);
