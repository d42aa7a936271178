<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Tally;
use App\Questions\NearRows;
use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessInWords;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;

/**
 * Pairs of rows that were found alike, as they are shown: with the reason in words, what else either could be, and what the draft says of
 * them.
 *
 * @phpstan-import-type Look from NearRows
 * @phpstan-import-type Found from NearRows
 *
 * @phpstan-type Row array{sequence: int, file: string|null, line: int, key: string, cells: list<string>}
 * @phpstan-type Candidate array{pair: array{int, int}, score: float, reason: string, state: string, target: Row}
 * @phpstan-type Pair array{pair: array{int, int}, score: float, reason: string, state: string, target: Row, margin: float, hasRival: bool,
 *     source: Row, others: list<Candidate>}
 * @phpstan-import-type NearRow from NearRows
 */
final readonly class NearPairs
{
    /** Candidates so close together are rivals, and are confirmed one by one alone. */
    public const RIVALS = 0.05;

    private const PAGE = 50;

    /** Pairs that are looked at before many are confirmed at once. */
    private const SAMPLE = 10;

    /** @var non-empty-list<LikenessColumn> */
    private array $likeness;

    private LikenessInWords $words;

    private TallyColumns $layout;

    /** @var array{confirmed: array<array-key, true>, refused: array<array-key, true>} by both keys */
    private array $decided;

    /**
     * @param  non-empty-list<Look>  $columns
     * @param  array<string, string>  $equivalents
     * @param  Found  $found
     */
    public function __construct(private Tally $tally, private array $columns, array $equivalents, private array $found)
    {
        $this->layout = TallyColumns::ofTally($tally);
        $this->likeness = NearRows::columns($this->layout->plan, $columns);
        $this->words = new LikenessInWords(new FoldedText($equivalents));
        $bridges = Bridges::fromDocument($tally->dataset->draftNow()->document ?? []);
        $this->decided = ['confirmed' => Bridges::identities($bridges->confirmed), 'refused' => Bridges::identities($bridges->refused)];
    }

    /**
     * @param  array{score?: float|null, margin?: float|null, state?: string|null, order?: string|null, from?: int|null}  $page
     * @return array{items: list<Pair>, ...}
     */
    public function page(Mask $mask, array $page): array
    {
        $cut = $page['score'] ?? $this->found['cut'];
        $above = array_values(array_filter($this->found['pairs'], static fn(array $pair): bool => $pair[2] >= $cut));
        $states = array_map($this->state(...), $above);
        $wanted = $page['state'] ?? 'open';
        $chosen = array_values(array_filter(
            $above,
            static fn(array $pair, int $place): bool => $wanted === 'all' || $states[$place] === $wanted,
            ARRAY_FILTER_USE_BOTH,
        ));
        $order = $page['order'] ?? 'score';
        if ($order !== 'source') {
            usort($chosen, static fn(array $one, array $other): int => ($order === 'margin'
                ? $one[2] - $one[3] <=> $other[2] - $other[3]
                : $other[2] <=> $one[2]) ?: $one[0] <=> $other[0]);
        }
        $from = max(1, $page['from'] ?? 1);
        $clear = $this->clear($cut, $page['margin'] ?? self::RIVALS);

        return [
            'all' => $this->found['all'],
            'looked' => $this->found['looked'],
            'curve' => $this->found['curve'],
            'cut' => $this->found['cut'],
            'approximate' => $this->found['approximate'],
            'counts' => [
                'pairs' => count($above),
                ...array_replace(['open' => 0, 'confirmed' => 0, 'refused' => 0], array_count_values($states)),
                'clear' => count($clear),
            ],
            'total' => count($chosen),
            'items' => array_map(fn(array $pair): array => $this->item($pair, $mask), array_slice($chosen, $from - 1, self::PAGE)),
            'sample' => array_map(fn(array $pair): array => $this->item($pair, $mask), self::sample($clear)),
        ];
    }

    /**
     * Open pairs without a rival, from a score on.
     *
     * @return list<array{int, int, float, float}>
     */
    public function clear(float $score, float $margin): array
    {
        return array_values(array_filter(
            $this->found['pairs'],
            fn(array $pair): bool => $pair[2] >= $score &&
                round($pair[2] - $pair[3], 4) >= max(self::RIVALS, $margin) &&
                $this->state($pair) === 'open',
        ));
    }

    /**
     * The keys of two rows that are each other's candidates; null if they are not.
     *
     * @return array{source: list<string>, target: list<string>}|null
     */
    public function keysOf(int $source, int $target): ?array
    {
        return in_array($target, array_column($this->found['candidates'][$source] ?? [], 0), true) ? [
            'source' => $this->found['rows']['source'][$source]['key'],
            'target' => $this->found['rows']['target'][$target]['key'],
        ] : null;
    }

    /** @param array{int, int, ...} $pair */
    private function state(array $pair): string
    {
        [$source, $target] = [$this->found['rows']['source'][$pair[0]], $this->found['rows']['target'][$pair[1]]];
        $keys = (new Bridge($source['key'], $target['key']))->identity();

        return match (true) {
            isset($this->decided['confirmed'][$keys]) => 'confirmed',
            isset($this->decided['refused'][$keys]) => 'refused',
            default => 'open',
        };
    }

    /**
     * @param  array{int, int, float, float}  $pair
     * @return Pair
     */
    private function item(array $pair, Mask $mask): array
    {
        [$source, $target, $score, $rival] = $pair;
        $others = array_values(array_filter(
            $this->found['candidates'][$source],
            static fn(array $one): bool => $one[0] !== $target,
        ));

        return [
            ...$this->side($source, $target, $score, $mask),
            'margin' => round($score - $rival, 4),
            'hasRival' => round($score - $rival, 4) < self::RIVALS,
            'source' => $this->row(Side::Source, $source, $mask),
            'others' => array_map(fn(array $one): array => $this->side($source, $one[0], $one[1], $mask), $others),
        ];
    }

    /** @return Candidate */
    private function side(int $source, int $target, float $score, Mask $mask): array
    {
        [$one, $other] = [$this->found['rows']['source'][$source]['cells'], $this->found['rows']['target'][$target]['cells']];

        return [
            'pair' => [$source, $target],
            'score' => $score,
            'reason' => $this->words->reason($this->likeness, array_column($this->columns, 'source'), $one, $other),
            'state' => $this->state([$source, $target]),
            'target' => $this->row(Side::Target, $target, $mask),
        ];
    }

    /** @return Row */
    private function row(Side $side, int $place, Mask $mask): array
    {
        $row = $this->found['rows'][$side->value][$place];

        return [
            'sequence' => $row['sequence'],
            'file' => $this->layout->file($side, $row['part']),
            'line' => $row['line'],
            'key' => (string) $mask->key(KeyTuple::of($row['key'])->asCsv()),
            'cells' => $row['cells'],
        ];
    }

    /**
     * The same ones whenever they are drawn: by the hash of both rows.
     *
     * @param  list<array{int, int, float, float}>  $pairs
     * @return list<array{int, int, float, float}>
     */
    private static function sample(array $pairs): array
    {
        $drawn = [];
        foreach ($pairs as $pair) {
            $drawn[hash('xxh64', "{$pair[0]} {$pair[1]}")] = $pair;
        }
        ksort($drawn, SORT_STRING);

        return array_slice(array_values($drawn), 0, self::SAMPLE);
    }
}
