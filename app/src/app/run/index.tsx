export { OpenRunsScreen as default } from '../../run/OpenRunsScreen';
