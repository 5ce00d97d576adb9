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
-- Words are only ever looked for by their beginnings: an index for each length, and no places within the text.
CREATE VIRTUAL TABLE document_search USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '1 2 3 4 5 6 7 8', detail = none, columnsize = 0);

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
--> statement-breakpoint
-- Counts for lists, kept with the rows they count.
CREATE TRIGGER documents_counted AFTER INSERT ON documents
BEGIN INSERT INTO tallies (name, n) VALUES (NEW.kind || ' ' || NEW.state, 1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; END;
--> statement-breakpoint
CREATE TRIGGER documents_counted_anew AFTER UPDATE OF state ON documents WHEN OLD.state <> NEW.state
BEGIN INSERT INTO tallies (name, n) VALUES (OLD.kind || ' ' || OLD.state, -1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; INSERT INTO tallies (name, n) VALUES (NEW.kind || ' ' || NEW.state, 1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; END;
--> statement-breakpoint
CREATE TRIGGER documents_counted_off AFTER DELETE ON documents
BEGIN INSERT INTO tallies (name, n) VALUES (OLD.kind || ' ' || OLD.state, -1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; END;
--> statement-breakpoint
CREATE TRIGGER open_items_counted AFTER INSERT ON open_items
BEGIN INSERT INTO tallies (name, n) VALUES ('item ' || NEW.state, 1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; END;
--> statement-breakpoint
CREATE TRIGGER open_items_counted_anew AFTER UPDATE OF state ON open_items WHEN OLD.state <> NEW.state
BEGIN INSERT INTO tallies (name, n) VALUES ('item ' || OLD.state, -1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; INSERT INTO tallies (name, n) VALUES ('item ' || NEW.state, 1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; END;
--> statement-breakpoint
CREATE TRIGGER open_items_counted_off AFTER DELETE ON open_items
BEGIN INSERT INTO tallies (name, n) VALUES ('item ' || OLD.state, -1) ON CONFLICT (name) DO UPDATE SET n = n + excluded.n; END;
