export { multinomialTest, type FitTest } from './multinomial-test.ts';
