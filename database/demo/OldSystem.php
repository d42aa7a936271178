<?php

declare(strict_types=1);

namespace Database\Demo;

/** A stand-in for the old register's database: what it holds of the datasets that are drawn, as psql reads it. */
final readonly class OldSystem
{
    public const NAME = 'Old system';

    /** @return iterable<string> lines */
    public static function statements(): iterable
    {
        foreach (Wherrymoor::drawn() as $drawn) {
            $rows = ($drawn->sides)()['source'];
            yield "CREATE TABLE {$drawn->table} (line serial PRIMARY KEY, ".implode(' text, ', $rows->columns).' text);';
            yield "COPY {$drawn->table} (".implode(', ', $rows->columns).') FROM stdin;';
            foreach ($rows->cells as $cells) {
                yield implode("\t", array_map(static fn(string $cell): string => addcslashes($cell, "\\\t\n\r"), $cells));
            }
            yield '\.';
        }
    }
}
