<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Queries\Review\SideMask;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Row;

/** A prepared side to be taken away, in blocks: the same bytes for the same input. */
final readonly class PreparedRows
{
    private const BLOCK_BYTES = 65_536;

    /** @return \Generator<int, string> UTF-8, comma, RFC 4180 quotes, LF */
    public function asCsv(Reader $reader, SideMask $mask): \Generator
    {
        $names = $reader->columns()->names;
        $shown = $mask->ofPrepared();

        return $this->inBlocks(
            CsvLine::of($names),
            $reader,
            static fn(Row $row): string => CsvLine::of($shown->cells($names, $row->cells)),
        );
    }

    /** @return \Generator<int, string> an object a line, every value a string */
    public function asJsonLines(Reader $reader, SideMask $mask): \Generator
    {
        $names = $reader->columns()->names;
        $shown = $mask->ofPrepared();

        return $this->inBlocks(
            '',
            $reader,
            static fn(Row $row): string => json_encode(
                (object) array_combine($names, $shown->cells($names, $row->cells)),
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
            )."\n",
        );
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

    /**
     * @param  \Closure(Row): string  $written
     * @return \Generator<int, string>
     */
    private function inBlocks(string $block, Reader $reader, \Closure $written): \Generator
    {
        foreach ($reader->records() as $record) {
            $block .= $record instanceof Row ? $written($record) : '';
            if (strlen($block) > self::BLOCK_BYTES) {
                yield $block;
                $block = '';
            }
        }
        yield $block;
    }
}
