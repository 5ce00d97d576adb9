// Every service that changes or shows something asks who it is: each role through each of them, with nothing behind it to reach.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { ROLES, type Right, type Role } from '../../../../src/lib/core/people/roles';

/** As the office’s table has it, set down anew: which roles each right belongs to. */
const HOLDERS: Readonly<Record<Right, readonly Role[]>> = {
	site: ['owner', 'office', 'onSite'],
	work: ['owner', 'office'],
	bill: ['owner', 'office'],
	money: ['owner', 'office'],
	books: ['owner', 'office', 'accountant'],
	tax: ['owner', 'accountant'],
	settings: ['owner', 'office'],
	owner: ['owner']
};

/** What takes which right, by the file it stands in. */
const GUARDED: Partial<Record<Right, Readonly<Record<string, string>>>> = {
	site: {
		'signing/sheets': 'beginSheet saveSheet discardSheet',
		'signing/sheetPaper': 'finishSheet',
		'signing/send': 'prepareSheet sendSheet'
	},
	work: {
		'customers/customers':
			'customerDetail searchCustomers addCustomer saveCustomer removeCustomer archiveCustomer',
		'customers/file': 'importCustomers',
		'customers/merge': 'mergeCustomers',
		'jobs/begin': 'beginJob copyJob',
		'jobs/file': 'importJobs',
		'jobs/jobs': 'addJob saveJob removeJob',
		'jobs/list': 'listJobs',
		'jobs/margins': 'marginReport',
		'jobs/visits': 'saveVisit removeVisit',
		'signing/send': 'attachSheets',
		'prices/prices': 'savePriceItem archivePriceItem removePriceItem',
		'prices/pictures': 'savePicture',
		'prices/raise': 'raisePrices',
		'costs/purchases': 'savePurchase removePurchase markPaid',
		'costs/suppliers': 'saveSupplier archiveSupplier',
		'costs/receipts': 'proposeFrom',
		'enquiries/enquiries':
			'addEnquiry saveEnquiry closeEnquiry reopenEnquiry answerEnquiry noteAnswered enquiryToJob'
	},
	bill: {
		'billing/applications': 'applyForPayment approveApplication withdrawApplication',
		'billing/billRun': 'startBillRun',
		'billing/retentions': 'releaseRetention',
		'billing/stages': 'billStage',
		'billing/toBill': 'billJob jobAsPattern',
		'chasing/claimLetter': 'claimPage writeClaim',
		'ledger/breathing': 'beginBreathing endBreathing',
		'chasing/chasing': 'saveWording sendNow skipMessage',
		'chasing/messages': 'markPosted',
		'chasing/payers': 'savePayerChasing',
		'chasing/plans': 'savePlan archivePlan restorePlan',
		'chasing/settings': 'saveChaseSettings',
		'invoices/corrections': 'correctAsDraft debitAsDraft',
		'invoices/creditNote': 'creditInvoice creditPart',
		'invoices/drafts': 'beginInvoice beginSelfBilled saveDraft discardDraft copyAsDraft',
		'invoices/issue': 'issueInvoice',
		'invoices/quick': 'quickOffers beginQuick',
		'invoices/send': 'sendByMail sendByText renewDocumentLink noteHandedOver',
		'invoices/startingPoints':
			'keepStartingPoint saveStartingPoint removeStartingPoint beginFrom copyToCustomers',
		'invoices/trial': 'tryOut',
		'many/runs': 'chooseRows beginRun stopRun resumeRun',
		'owed/holds': 'pauseInvoice resumeInvoice noteCall',
		'owed/lateCharges': 'chargeLate',
		'owed/lateTerms': 'saveLateTerms',
		'owed/statementRuns': 'startStatements',
		'quotes/quotes': 'beginQuote quoteOfEnquiry saveQuote discardQuote copyQuote',
		'quotes/answers': 'withdrawQuote noteDeclined reopenQuote prolongQuote quietQuote',
		'quotes/plan': 'saveQuotePlan',
		'money/cancelled': 'settleCancelled',
		'quotes/send': 'sendQuote',
		'quotes/accept': 'acceptByHand',
		'quotes/cancel': 'noteCancelled',
		'quotes/page': 'answerQuestion',
		'repeats/keptCards': 'revokeCard',
		'repeats/making': 'answerPile',
		'repeats/repeats': 'addRepeat saveRepeat changeRepeat skipOccurrence setRepeatState'
	},
	money: {
		'business/exchange': 'addRate removeRate restoreRate importRates',
		'money/cardDisputes': 'answerDispute disputeEvidence',
		'money/bank/accept': 'acceptLine acceptReversal acceptSure setNotBusiness reopenLine',
		'money/bank/bringIn': 'takeIn leaveFile forgetColumns',
		'money/bank/learned': 'forgetName',
		'money/depositRequests': 'recordDeposit',
		'money/payerPayments': 'recordForPayer',
		'money/payments': 'recordPayment',
		'money/payouts': 'decideOddNews',
		'money/refunds': 'refundCard refundByHand',
		'money/undo': 'undoPayment',
		'money/useInHand': 'useInHand useAllInHand returnInHand',
		'money/writeOffs': 'writeOff undoWriteOff'
	},
	settings: {
		'business/workKinds': 'saveWorkKind archiveWorkKind',
		'enquiries/page': 'addQuestion removeQuestion savePage renewPage',
		'business/lineTags': 'addLineTag archiveLineTag',
		'letterheads/letterheads':
			'makeLetterhead lookOfItsOwn saveLook renameLetterhead makeStandard archiveLetterhead',
		'letterheads/logos': 'saveLogo',
		'wordings/wordings': 'saveWording restoreWording'
	},
	owner: {
		'business/settings': 'saveBusiness savePart',
		'reports/packLinks': 'sendPack openPackLinks revokePackLink',
		'moving/deposits': 'previewDeposits importDeposits',
		'moving/invoices': 'previewOpening importOpening',
		'moving/repeats': 'previewRepeats importRepeats',
		'moving/takeBack': 'takeBackMoving',
		'keep/backups': 'saveBackupSetting',
		'keep/backupPage': 'backupFile keepPage',
		'keep/exporting': 'exported',
		'keep/goingOn': 'afterRestore askSince goOn',
		'keep/stolen': 'shutOut',
		'owed/referenceRates': 'saveRate',
		'tax/badDebts': 'settleRelief',
		'tax/deductionImport': 'importDeductionStatements',
		'tax/deductions': 'saveDeductionStatement removeDeductionStatement'
	},
	tax: {
		'tax/deductions': 'deductionsPage'
	}
};

const SOURCE = '../../../../src/lib';

class Past extends Error {}

/** A world that is touched only by whoever came past the question. */
const behind = new Proxy(
	{},
	{
		get() {
			throw new Past();
		}
	}
);

describe('who asks a service', () => {
	for (const [right, files] of Object.entries(GUARDED))
		it(`is asked for the right of ${right}, before anything is touched`, async () => {
			const { asActor } = await import(`${SOURCE}/server/actor`);
			const { ForbiddenError } = await import(`${SOURCE}/core/refusals`);
			for (const [file, names] of Object.entries(files)) {
				const services = (await import(`${SOURCE}/server/services/${file}`)) as Record<
					string,
					(...given: unknown[]) => unknown
				>;
				for (const name of names.split(' '))
					for (const role of ROLES) {
						const who = { id: 9, name: '', role, seesPrices: true };
						let met: unknown;
						try {
							await asActor(who, () => services[name]!(behind, {}, {}));
						} catch (problem) {
							met = problem;
						}
						const mayPass = HOLDERS[right as Right].includes(role);
						expect(met instanceof ForbiddenError, `${role}: ${file} ${name}`).to.equal(!mayPass);
					}
			}
		});
});
