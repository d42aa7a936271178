<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Deliveries\PreparedSides;
use App\Questions\RowsListed;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Tally\Workspace;

/** A list of rows to be taken away: the same bytes for the same input. */
final readonly class ListedLines
{
    private const BLOCK_BYTES = 65_536;

    public function __construct(private PreparedSides $sides) {}

    /** @return list<string> */
    public function header(RowsListed $list): array
    {
        $names = array_column($list->columns, 'name');

        return $list->isOfValues()
            ? [
                ...$names,
                ...$list->span === null ? [] : ['lowest', 'highest'],
                'rows in source', 'lines in source', 'rows in target', 'lines in target',
            ]
            : ['side', 'line', ...$names];
    }

    /** @return \Generator<int, list<string>> */
    public function cells(RowsListed $list, ListMask $mask): \Generator
    {
        $workspace = Workspace::make($this->sides->folder());
        try {
            foreach ($list->lines($this->sides, $workspace->path) as $line) {
                $cells = $mask->cells($line['side'], $line['cells']);
                yield $list->isOfValues()
                    ? [
                        ...$cells,
                        ...$line['span'] ?? [],
                        (string) $line['rows']['source'], $line['lines']['source'],
                        (string) $line['rows']['target'], $line['lines']['target'],
                    ]
                    : [$line['side'], $line['lines'][$line['side']], ...$cells];
            }
        } finally {
            $workspace->remove();
        }
    }

    /** @return \Generator<int, string> UTF-8, comma, RFC 4180 quotes, LF; or an object a line, every value a string */
    public function inBlocks(RowsListed $list, ListMask $mask, bool $asJsonLines): \Generator
    {
        $header = $this->header($list);
        $block = $asJsonLines ? '' : CsvLine::of($header);
        foreach ($this->cells($list, $mask) as $cells) {
            $block .= $asJsonLines
                ? json_encode(
                    (object) array_combine($header, $cells),
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
                )."\n"
                : CsvLine::of($cells);
            if (strlen($block) > self::BLOCK_BYTES) {
                yield $block;
                $block = '';
            }
        }
        yield $block;
    }
}
