<!-- Its action alone is used. -->
