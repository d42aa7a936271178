<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Storage\ForgivenLists;
use App\Models\Tally;
use NineTally\Core\Report\CsvLine;

/**
 * Cells that a rule let pass, page by page or all of them to be taken away, as the person may see them.
 *
 * @phpstan-import-type ForgivenCell from ForgivenLists
 */
final readonly class ForgivenPages
{
    private const COLUMNS = ['source part', 'source line', 'target part', 'target line', 'source', 'target'];

    public function __construct(private ForgivenLists $lists, private Mask $mask, private bool $hidesValues) {}

    /**
     * Of a text all cells are looked through, so their number is known only when that is done.
     *
     * @return array{items: list<array<string, string|int>>, cells: int, next: int|null} from and next count the cells that have the text
     */
    public function page(int $list, int $from, int $limit, ?string $text): array
    {
        $items = [];
        $found = 0;
        foreach ($this->lists->cells($list, $text === null ? $from : 1, $text) as $place => $cell) {
            $found++;
            $nth = $text === null ? $from + $found - 1 : $found;
            if ($nth >= $from && count($items) < $limit) {
                $items[] = ['place' => $place, ...$this->shown($cell)];
            } elseif ($text === null) {
                break;
            }
        }
        $cells = $text === null ? $this->lists->count($list) : $found;

        return ['items' => $items, 'cells' => $cells, 'next' => $from + count($items) <= $cells ? $from + count($items) : null];
    }

    /** @return \Generator<int, string> CSV (RFC 4180), or an object a line */
    public function taken(Tally $tally, int $list, ?string $text, bool $asLines): \Generator
    {
        $header = ['key: '.implode(', ', $tally->summary['madeOf']['keyColumns']), 'column', 'cause', ...self::COLUMNS];
        ['source' => $column, 'cause' => $cause] = $tally->forgiven()[$list - 1];
        if (! $asLines) {
            yield CsvLine::of($header);
        }
        foreach ($this->lists->cells($list, 1, $text) as $cell) {
            $shown = $this->shown($cell);
            $line = [$shown['key'], $column, $cause, ...array_values(array_diff_key($shown, ['key' => true]))];
            yield $asLines
                ? json_encode(array_combine($header, $line), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n"
                : CsvLine::of($line);
        }
    }

    /**
     * @param  ForgivenCell  $cell
     * @return ForgivenCell
     */
    private function shown(array $cell): array
    {
        return [
            ...$cell,
            'key' => (string) $this->mask->key($cell['key']),
            'source' => $this->hidesValues ? $this->mask->value($cell['source']) : $cell['source'],
            'target' => $this->hidesValues ? $this->mask->value($cell['target']) : $cell['target'],
        ];
    }
}
