-- Any words of an entry, in any order; the vocabulary is what a mistyped word is compared with.
CREATE VIRTUAL TABLE price_search USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3');
--> statement-breakpoint
CREATE VIRTUAL TABLE price_words USING fts5vocab(price_search, 'row');
