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
