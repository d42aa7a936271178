<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Queries\Review\SideMask;
use App\Queries\TakeAway\RowBlocks;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Row\Row;

/** A prepared side to be taken away, in blocks: the same bytes for the same input. */
final readonly class PreparedRows
{
    /** @return \Generator<int, string> UTF-8, comma, RFC 4180 quotes, LF */
    public function asCsv(Reader $reader, SideMask $mask): \Generator
    {
        return RowBlocks::asCsv($reader->columns()->names, $this->cells($reader, $mask));
    }

    /** @return \Generator<int, string> an object a line, every value a string */
    public function asJsonLines(Reader $reader, SideMask $mask): \Generator
    {
        return RowBlocks::asJsonLines($reader->columns()->names, $this->cells($reader, $mask));
    }

    /** @return \Generator<int, list<string>> the cells of each row, by how many bytes were read with it */
    public function cells(Reader $reader, SideMask $mask): \Generator
    {
        $names = $reader->columns()->names;
        $shown = $mask->ofPrepared();
        $bytes = 0;
        foreach ($reader->records(static function (int $read) use (&$bytes): void {
            $bytes = $read;
        }) as $record) {
            if ($record instanceof Row) {
                yield $bytes => $shown->cells($names, $record->cells);
            }
        }
    }
}
