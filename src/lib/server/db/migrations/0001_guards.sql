-- What is issued never changes, and the journal is only ever added to.
CREATE TRIGGER documents_issued_no_update BEFORE UPDATE ON documents WHEN OLD.state = 'issued'
BEGIN SELECT RAISE(ABORT, 'an issued document never changes'); END;
--> statement-breakpoint
CREATE TRIGGER documents_issued_no_delete BEFORE DELETE ON documents WHEN OLD.state = 'issued'
BEGIN SELECT RAISE(ABORT, 'an issued document is never deleted'); END;
--> statement-breakpoint
CREATE TRIGGER document_lines_no_insert BEFORE INSERT ON document_lines
WHEN (SELECT state FROM documents WHERE id = NEW.document_id) = 'issued'
BEGIN SELECT RAISE(ABORT, 'an issued document never changes'); END;
--> statement-breakpoint
CREATE TRIGGER document_lines_no_update BEFORE UPDATE ON document_lines
BEGIN SELECT RAISE(ABORT, 'the lines of a document never change'); END;
--> statement-breakpoint
CREATE TRIGGER document_lines_no_delete BEFORE DELETE ON document_lines
BEGIN SELECT RAISE(ABORT, 'the lines of a document are never deleted'); END;
--> statement-breakpoint
CREATE TRIGGER document_files_no_update BEFORE UPDATE ON document_files
BEGIN SELECT RAISE(ABORT, 'a stored document never changes'); END;
--> statement-breakpoint
CREATE TRIGGER document_files_no_delete BEFORE DELETE ON document_files
BEGIN SELECT RAISE(ABORT, 'a stored document is never deleted'); END;
--> statement-breakpoint
CREATE TRIGGER journal_entries_no_update BEFORE UPDATE ON journal_entries
BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
--> statement-breakpoint
CREATE TRIGGER journal_entries_no_delete BEFORE DELETE ON journal_entries
BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
--> statement-breakpoint
CREATE TRIGGER journal_lines_no_update BEFORE UPDATE ON journal_lines
BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
--> statement-breakpoint
CREATE TRIGGER journal_lines_no_delete BEFORE DELETE ON journal_lines
BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END;
--> statement-breakpoint
CREATE TRIGGER payments_no_update BEFORE UPDATE ON payments
BEGIN SELECT RAISE(ABORT, 'a recorded payment never changes'); END;
--> statement-breakpoint
CREATE TRIGGER payments_no_delete BEFORE DELETE ON payments
BEGIN SELECT RAISE(ABORT, 'a recorded payment is never deleted'); END;
--> statement-breakpoint
CREATE TRIGGER trail_no_update BEFORE UPDATE ON trail
BEGIN SELECT RAISE(ABORT, 'the paper trail is only added to'); END;
--> statement-breakpoint
CREATE VIRTUAL TABLE document_search USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');

--> statement-breakpoint
-- Any words of an entry, in any order; the vocabulary is what a mistyped word is compared with.
CREATE VIRTUAL TABLE price_search USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
--> statement-breakpoint
CREATE VIRTUAL TABLE price_words USING fts5vocab(price_search, 'row');

--> statement-breakpoint
CREATE TRIGGER allocations_no_update BEFORE UPDATE ON allocations
BEGIN SELECT RAISE(ABORT, 'what a payment settles never changes'); END;
--> statement-breakpoint
CREATE TRIGGER allocations_no_delete BEFORE DELETE ON allocations
BEGIN SELECT RAISE(ABORT, 'what a payment settles never changes'); END;
--> statement-breakpoint
CREATE TRIGGER transfers_no_update BEFORE UPDATE ON transfers
BEGIN SELECT RAISE(ABORT, 'applied credit never changes'); END;
--> statement-breakpoint
CREATE TRIGGER transfers_no_delete BEFORE DELETE ON transfers
BEGIN SELECT RAISE(ABORT, 'applied credit never changes'); END;
--> statement-breakpoint
CREATE TRIGGER write_offs_no_update BEFORE UPDATE ON write_offs
BEGIN SELECT RAISE(ABORT, 'a write-off never changes'); END;
--> statement-breakpoint
CREATE TRIGGER write_offs_no_delete BEFORE DELETE ON write_offs
BEGIN SELECT RAISE(ABORT, 'a write-off never changes'); END;
--> statement-breakpoint
INSERT INTO reference_rates ("from", rate) VALUES
	('2024-01-01', '5.25'), ('2024-07-01', '5.25'), ('2025-01-01', '4.75'), ('2025-07-01', '4.25'), ('2026-01-01', '3.75');
