import * as Comlink from 'comlink';
import { makeBay } from '../bay/bayWorker';
import { FRAME_MS } from '../bay/frameMs';

const bay = makeBay(() => performance.now());
setInterval(() => bay.tick(), FRAME_MS);
Comlink.expose(bay);
