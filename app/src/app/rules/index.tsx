export { RulesScreen as default } from '../../rules/RulesScreen';
