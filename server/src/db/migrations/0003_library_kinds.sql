-- The library also keeps friction coefficients; which kinds there are is the schema's to say, once.
alter table library drop constraint library_kind_check
