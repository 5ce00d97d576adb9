// Great Britain behind the interface of a regime.
import type { Regime } from '../types';
import { decideDeduction, decideRate, decideReverseCharge } from './decisions';
import { rateOn } from './rates';
import { RULES } from './rules';

export const GB: Regime = {
	id: 'GB',
	currency: 'GBP',
	rules: RULES,
	rateOn,
	decideReverseCharge,
	decideRate,
	decideDeduction
};
