"""Sheets become tables: one for each, with one row of headings and one value of a kind in a row.

People put several tables on a sheet, headings over two and three rows, a group of columns for each case, a line with
the case over
each block, stories across the page. Nothing is read into cells here: the heading above several columns or rows is
written beside
each of them, and every cell keeps the place where it was.
"""
