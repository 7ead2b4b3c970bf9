export { TraceScreen as default } from '../trace/TraceScreen';
