<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use NineTally\Core\Report\CsvLine;

/** Rows to be taken away, in blocks: the same bytes for the same input. */
final readonly class RowBlocks
{
    private const BLOCK_BYTES = 65_536;

    /**
     * @param  list<string>  $names
     * @param  iterable<list<string>>  $rows
     * @return \Generator<int, string> UTF-8, comma, RFC 4180 quotes, LF
     */
    public static function asCsv(array $names, iterable $rows): \Generator
    {
        return self::blocks(CsvLine::of($names), $rows, CsvLine::of(...));
    }

    /**
     * @param  list<string>  $names
     * @param  iterable<list<string>>  $rows
     * @return \Generator<int, string> an object a line, every value a string
     */
    public static function asJsonLines(array $names, iterable $rows): \Generator
    {
        return self::blocks('', $rows, static fn(array $cells): string => json_encode(
            (object) array_combine($names, $cells),
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
        )."\n");
    }

    /**
     * @param  iterable<list<string>>  $rows
     * @param  \Closure(list<string>): string  $written
     * @return \Generator<int, string>
     */
    private static function blocks(string $block, iterable $rows, \Closure $written): \Generator
    {
        foreach ($rows as $cells) {
            $block .= $written($cells);
            if (strlen($block) > self::BLOCK_BYTES) {
                yield $block;
                $block = '';
            }
        }
        yield $block;
    }
}
