// The firm whose books the benches fill.
import { saveBusiness } from '../src/lib/server/services/business/settings';
import type { World } from '../src/lib/server/world';

export const saveFirm = (world: World): void =>
	saveBusiness(
		world,
		{
			ownerName: 'Tamsin Orrell',
			tradingName: '',
			address: 'Kiln Cottage',
			email: '',
			phone: '',
			utr: '',
			vatRegistered: true,
			vatNumber: '444444454',
			bankAccountName: '',
			bankSortCode: '',
			bankAccountNumber: ''
		},
		true
	);
