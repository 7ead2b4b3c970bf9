export { WordsScreen as default } from '../words/WordsScreen';
