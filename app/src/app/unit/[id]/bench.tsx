export { BenchScreen as default } from '../../../bench/BenchScreen';
