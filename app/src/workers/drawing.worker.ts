import * as Comlink from 'comlink';
import { makeDrawing } from '../air/drawing';

Comlink.expose(makeDrawing());
