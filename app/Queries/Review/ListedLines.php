<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Deliveries\PreparedSides;
use App\Queries\TakeAway\RowBlocks;
use App\Questions\RowsListed;
use NineTally\Core\Tally\Workspace;

/** A list of rows to be taken away: the same bytes for the same input. */
final readonly class ListedLines
{
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
        [$names, $rows] = [$this->header($list), $this->cells($list, $mask)];

        return $asJsonLines ? RowBlocks::asJsonLines($names, $rows) : RowBlocks::asCsv($names, $rows);
    }
}
