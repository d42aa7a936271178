<?php

declare(strict_types=1);

namespace NineTally\Core\Tests\Likeness;

use NineTally\Core\Likeness\ColumnSample;
use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessInWords;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\LikenessProposal;
use NineTally\Core\Likeness\LikenessSearch;
use NineTally\Core\Likeness\NearPair;
use NineTally\Core\Likeness\NearRowsFound;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\TestCase;

/** From rows that meet nothing to pairs that are proposed, on holders in whom errors were planted. */
final class NearRowsTest extends TestCase
{
    private const FIRST = [
        'Ezekiel', 'Ottoline', 'Bríd', 'Søren', 'Maëlle', 'Jörg', 'Aurelio', 'Wanda', 'Nnedi', 'Ilse', 'Tomasz', 'Hester',
    ];

    private const LAST = ['Thornøy', 'Marrow', 'Pennywhistle', 'Ashcombe', 'Lindqvist', 'Quillfeather', 'Dàvies', 'Fenwright', 'Saltmarsh'];

    public function test_the_search_finds_what_comparing_all_with_all_finds(): void
    {
        [$source, $target] = $this->planted(250);
        $search = $this->search($target, $source);
        $missed = 0;
        foreach ($source as $number => $cells) {
            $likeness = array_map(static fn(array $other): float => $search->likeness($cells, $other), $target);
            $found = $search->candidates($cells)[0][1] ?? 0.0;
            $best = max([0.0, ...$likeness]);
            $missed += $best >= 0.7 && $found < $best - 1e-9 ? 1 : 0;
        }
        self::assertLessThanOrEqual(1, $missed);
    }

    public function test_every_planted_pair_is_proposed_and_no_other_from_the_proposed_score_on(): void
    {
        [$source, $target, $truth] = $this->planted(300);
        $search = $this->search($target, $source);
        $found = new NearRowsFound(array_map($search->candidates(...), $source));
        $cut = $found->proposedCut();
        $proposed = array_values(array_filter($found->assigned->pairs, static fn(NearPair $pair): bool => $pair->score >= $cut));
        $right = array_filter($proposed, static fn(NearPair $pair): bool => ($truth[$pair->source] ?? -1) === $pair->target);

        self::assertSame(count($proposed), count($right), 'Precision.');
        self::assertGreaterThanOrEqual(0.97 * count($truth), count($right), 'Recall.');
        $curve = $found->curve();
        self::assertSame(array_sum(array_map(count(...), $found->candidates)), array_sum($curve['candidates']), 'No candidate is lost.');
    }

    /** What is never far apart says little: days of one month, and fees of one table. */
    public function test_likeness_by_chance_counts_for_nothing(): void
    {
        $date = new Reading(Kind::Date);
        $rows = array_map(static fn(int $day): array => [sprintf('2026-03-%02d', $day), "N{$day}"], range(10, 29));
        $search = new LikenessSearch([
            new LikenessColumn(LikenessKind::Date, 5, $date, $date),
            new LikenessColumn(LikenessKind::Code, 5),
        ]);
        array_map($search->add(...), $rows);
        $before = $search->likeness(['2026-03-01', 'XYZ'], ['2026-03-20', 'ABC']);
        $search->calibrate($rows);

        self::assertGreaterThan(0.45, $before);
        self::assertLessThan(0.3, $search->likeness(['2026-03-01', 'XYZ'], ['2026-03-20', 'ABC']));
        self::assertSame(1.0, $search->likeness($rows[0], $rows[0]));
        // Blank on one side counts half, and against them; blank on both sides says nothing.
        self::assertSame(
            [0.6667, 1.0],
            [
                round($search->likeness(['2026-03-10', 'N10'], ['2026-03-10', '']), 4),
                $search->likeness(['2026-03-10', ''], ['2026-03-10', '']),
            ],
        );
    }

    public function test_columns_kinds_and_weights_follow_from_the_values(): void
    {
        [$source, $target] = $this->planted(200);
        $sample = static fn(string $name, array $old, array $new, ?float $agreed = 1.0): ColumnSample => new ColumnSample(
            $name,
            $name,
            Kind::Text,
            $agreed === null,
            array_values(array_filter($old, is_string(...))),
            array_values(array_filter($new, is_string(...))),
            $agreed,
        );
        $long = array_map(static fn(int $number): string => "The berth of number {$number} lies behind the lock", range(1, 40));
        $proposed = LikenessProposal::of([
            $sample('holder_no', array_map(strval(...), range(1, 200)), array_map(strval(...), range(9_001, 9_200)), agreed: null),
            $sample('name', array_column($source, 0), array_column($target, 0)),
            $sample('since', array_column($source, 2), array_column($target, 2), agreed: 0.9),
            $sample('remark', $long, array_map(static fn(string $text): string => substr($text, 0, 24), $long)),
            $sample('country', array_fill(0, 50, 'WM'), array_fill(0, 50, 'WM')),
            $sample('loaded', array_column($source, 2), array_column($target, 2), agreed: 0.1),
        ]);

        self::assertSame(
            ['name' => LikenessKind::Words, 'remark' => LikenessKind::Beginning, 'since' => LikenessKind::Date],
            array_column($proposed, 'kind', 'source') + [],
        );
        self::assertSame(
            [1, 0],
            [$proposed[0]['weight'] <=> $proposed[2]['weight'], count(array_diff(array_column($proposed, 'weight'), range(1, 10)))],
        );
    }

    public function test_the_reason_says_what_is_the_same_and_by_how_much_the_rest_differs(): void
    {
        $number = new Reading(Kind::Number);
        $date = new Reading(Kind::Date);
        $columns = [
            new LikenessColumn(LikenessKind::Words, 5),
            new LikenessColumn(LikenessKind::Code, 5),
            new LikenessColumn(LikenessKind::Number, 5, $number, $number),
            new LikenessColumn(LikenessKind::Date, 5, $date, $date),
            new LikenessColumn(LikenessKind::Beginning, 5),
            new LikenessColumn(LikenessKind::Name, 5),
        ];
        $names = ['name', 'berth', 'length', 'since', 'remark', 'basin'];
        $words = new LikenessInWords(new FoldedText);

        self::assertSame(
            'same berth and basin; the words of name in another order; length 3 apart; since 2 days apart; one remark begins the other',
            $words->reason(
                $columns,
                $names,
                ['Ezekiel Thornøy', 'KB-1', '12.5', '2026-01-01', 'The lock keeper', 'Kestrel'],
                ['THORNOY, Ezekiel', 'KB 1', '15.50', '2026-01-03', 'The lock', 'KESTREL'],
            ),
        );
        self::assertSame(
            'an initial in name; berth differs by one character; length is blank in the target',
            $words->reason($columns, $names, ['Wanda Ilse', 'KB-1', '12.5', '', '', ''], ['W. Ilse', 'KB-2', '', '', '', '']),
        );
    }

    /**
     * @param  list<list<string>>  $target
     * @param  list<list<string>>  $source
     */
    private function search(array $target, array $source): LikenessSearch
    {
        $date = new Reading(Kind::Date);
        $search = new LikenessSearch([
            new LikenessColumn(LikenessKind::Words, 9), new LikenessColumn(LikenessKind::Words, 8),
            new LikenessColumn(LikenessKind::Date, 5, $date, $date),
        ]);
        array_map($search->add(...), $target);
        $search->calibrate($source);

        return $search;
    }

    /** @return array{list<list<string>>, list<list<string>>, array<int, int>} rows of both sides, and which is which */
    private function planted(int $rows): array
    {
        mt_srand(9);
        $source = $target = $truth = [];
        for ($row = 0; $row < $rows; $row++) {
            $name = self::FIRST[$row % 12].' '.self::LAST[intdiv($row, 12) % 9];
            $cells = [
                $name,
                (($row * 7) % 89) + 1 .' '.self::LAST[$row % 7].' Street',
                sprintf('20%02d-%02d-%02d', $row % 23, ($row % 12) + 1, ($row % 27) + 1),
            ];
            if ($row % 5 !== 0) {
                $source[] = $cells;
            }
            if ($row % 5 !== 1) {
                $letter = mt_rand(1, mb_strlen($name) - 1);
                $cells[0] = match (mt_rand(0, 3)) {
                    0 => implode(', ', array_reverse(explode(' ', $name))),
                    1 => mb_strtoupper($name),
                    2 => mb_substr($name, 0, $letter).mb_substr($name, $letter + 1),
                    default => mb_substr($name, 0, 1).strstr($name, ' '),
                };
                array_unshift($target, $cells);
                if ($row % 5 !== 0) {
                    $truth[count($source) - 1] = -count($target);
                }
            }
        }

        // Rows of the target stand in reverse.
        return [$source, $target, array_map(static fn(int $behind): int => count($target) + $behind, $truth)];
    }
}
