-- From here on sheets are stored in format 4: what a drive is made of is one graph. Those that are stored already stay as they are and are brought up when
-- they are read; a Moray of before could not read the new ones, and refuses the folder by this number.
select 1;
