<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Report\CsvLine;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * A plan and the rows of both sides, drawn by chance: what a property is held against, and what is made smaller when it does not hold.
 *
 * @phpstan-type Document array{formatVersion: int, key: list<array<string, mixed>>, columnPairs: list<array<string, mixed>>,
 *     leftOut: array{source: list<string>, target: list<string>}, sides: array{source: array<string, mixed>, target: array<string, mixed>},
 *     totals?: list<array<string, mixed>>}
 */
final readonly class GeneratedTally
{
    public const NAMES = ['basin', 'berth', 'holder', 'fee', 'seen', 'paid'];

    private const CELLS = [
        ['', 'KB', 'kb', ' KB', 'LM', 'NULL'],
        ['1', '01', '2', '12', '', "line\nend", 'a,b'],
        ['', 'Ann', 'ANN', ' Ann', 'Ann Lee', "Ann\u{A0}Lee", 'Zoë', 'Zoe', 'N/A', '"', "a\r\nb"],
        ['', '10', '10.0', '10,0', '1.010,5', '1010.5', '-3', '010', 'NULL', 'ten', '10.004'],
        ['', '2024-03-04', '04/03/2024', '03/04/2024', '2024-04-03', '4.3.2024', 'soon', 'NULL'],
        ['', 'Y', 'yes', 'N', 'no', 'ja', 'perhaps', '1', '0'],
    ];

    private const FORGIVEN = [
        'spacing', 'case', 'accents', 'punctuation', 'leading-zeros', 'number-form', 'date-form', 'yes-no-form', 'blank-token',
    ];

    /**
     * @param  Document  $plan
     * @param  list<list<string>>  $source
     * @param  list<list<string>>  $target
     */
    public function __construct(public array $plan, public array $source, public array $target) {}

    public static function draw(Randomizer $random): self
    {
        $chance = static fn(int $oneIn): bool => $random->getInt(1, $oneIn) === 1;
        $some = /**
         * @template T
         *
         * @param  list<T>  $of
         * @return list<T>
         */ static fn(array $of): array => array_values(array_filter($of, static fn(): bool => $chance(4)));
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $key = array_map(
            static fn(string $name): array => $same($name) +
                (($forgives = $some(['spacing', 'case', 'leading-zeros'])) === [] ? [] : ['forgives' => $forgives]),
            $chance(3) ? ['berth'] : ['basin', 'berth'],
        );
        $kinds = ['holder' => 'text', 'fee' => 'number', 'seen' => 'date', 'paid' => 'yes-no'];
        $pairs = [];
        foreach ($kinds as $name => $kind) {
            $kind = $random->getInt(0, 2) === 0 ? 'text' : $kind;
            $pairs[] = ['id' => 'pair-00000000000'.count($pairs), ...$same($name), 'kind' => $kind]
                + (($forgives = $some(self::FORGIVEN)) === [] ? [] : ['forgives' => $forgives])
                + ($kind === 'number' && $chance(2) ? ['tolerance' => ['by' => 'absolute', 'most' => '0.01']] : [])
                + ($kind === 'date' && $chance(2) ? ['tolerance' => ['by' => 'days', 'most' => '30']] : []);
        }
        $policy = static fn(): array => [
            ['policy' => 'set-aside'],
            ['policy' => 'collapse-copies'],
            ['policy' => 'collapse-copies', 'except' => ['paid']],
            ['policy' => 'keep-highest', 'column' => 'fee', 'kind' => 'number'],
            ['policy' => 'keep-lowest', 'column' => 'seen', 'kind' => 'date', 'then' => ['column' => 'holder', 'keeps' => 'lowest']],
        ][$random->getInt(0, 4)];
        $steps = [
            ['id' => 'step-1', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'paid', 'test' => 'is', 'value' => 'perhaps']],
            ['id' => 'step-2', 'kind' => 'tidy-text', 'columns' => ['holder'], 'actions' => [['action' => 'trim'], ['action' => 'upper']]],
            ['id' => 'step-3', 'kind' => 'read-number', 'columns' => ['fee']],
            ['id' => 'step-4', 'kind' => 'read-date', 'columns' => ['seen']],
            ['id' => 'step-5', 'kind' => 'crosswalk', 'column' => 'paid', 'entries' => [['source' => 'ja', 'target' => 'Y']]],
            ['id' => 'step-6', 'kind' => 'keep-rows', 'condition' => ['column' => 'fee', 'test' => 'is-not-blank']],
        ];
        $side = static fn(): array => ($chance(2) ? ['blankTokens' => ['NULL', 'N/A']] : [])
            + ($chance(3) ? ['decimalMark' => ',', 'groupMark' => '.'] : [])
            + ($chance(2) ? ['dateForms' => ['dd/MM/yyyy', 'd.M.yyyy']] : [])
            + ($chance(3) ? ['yes' => ['ja', 'Y'], 'no' => ['nee', 'N']] : [])
            + ['repeats' => $policy()]
            + (($drawn = $some($steps)) === [] ? [] : ['preparation' => $drawn]);
        $row = /** @return list<string> */ static fn(): array => array_map(
            static fn(array $cells): string => $cells[$random->getInt(0, count($cells) - 1)],
            self::CELLS,
        );
        /** @return list<list<string>> */
        $rows = static fn(int $most): array => array_map($row, array_fill(0, $random->getInt(0, $most), null));
        $source = $rows(12);
        $target = [];
        foreach ($source as $row) {
            if (! $chance(6)) {
                $target[] = array_map(
                    static fn(string $cell, int $column): string => $chance($column < 2 ? 12 : 3)
                        ? self::CELLS[$column][$random->getInt(0, count(self::CELLS[$column]) - 1)]
                        : $cell,
                    $row,
                    array_keys($row),
                );
            }
        }

        $plan = [
            'formatVersion' => 3,
            'key' => $key,
            'columnPairs' => $pairs,
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => ['source' => $side(), 'target' => $side()],
        ];
        // By a chance of their own, so that a further total draws no other data.
        $ofTotals = new Randomizer(new Mt19937(crc32(CanonicalJson::of($plan))));
        $totals = array_values(array_filter(self::totals(), static fn(): bool => $ofTotals->getInt(0, 1) === 1));

        return new self($totals === [] ? $plan : [...$plan, 'totals' => $totals], $source, [...$target, ...$rows(3)]);
    }

    /** @return list<array<string, mixed>> */
    private static function totals(): array
    {
        $of = static fn(string $name): array => ['source' => $name, 'target' => $name];

        return [
            ['measure' => 'rows'],
            ['measure' => 'rows', 'by' => [$of('basin')], 'over' => 'matched'],
            ['measure' => 'sum', ...$of('fee')],
            ['measure' => 'sum', ...$of('fee'), 'by' => [$of('basin'), $of('paid')]],
            ['measure' => 'sum', ...$of('fee'), 'by' => [$of('berth')], 'over' => 'matched'],
            ['measure' => 'sum', ...$of('berth'), 'by' => [$of('holder')]],
            ['measure' => 'sum', 'source' => 'fee', 'target' => 'berth', 'by' => [['source' => 'holder', 'target' => 'paid']]],
            ['measure' => 'sum', ...$of('fee'), 'by' => [$of('basin')], 'times' => $of('berth'), 'along' => [$of('holder'), $of('seen')]],
            ['measure' => 'sum', ...$of('berth'), 'by' => [$of('berth')], 'over' => 'matched', 'times' => ['constant' => '-0.125']],
            ['measure' => 'blanks', ...$of('holder'), 'by' => [$of('seen')]],
            ['measure' => 'rows', 'by' => [$of('holder')], 'over' => 'delivered'],
            ['measure' => 'sum', ...$of('fee'), 'by' => [$of('paid')], 'over' => 'delivered', 'times' => $of('berth')],
            ['measure' => 'blanks', ...$of('holder'), 'over' => 'delivered'],
            ['measure' => 'least', ...$of('fee')],
            ['measure' => 'distinct', ...$of('holder'), 'by' => [$of('basin')]],
            ['measure' => 'greatest', ...$of('seen'), 'kind' => 'date', 'by' => [$of('basin')]],
        ];
    }

    public function plan(): Plan
    {
        return Plan::fromJson(CanonicalJson::of($this->plan));
    }

    /** The target held against the source. */
    public function mirrored(): self
    {
        $plan = $this->plan;

        return new self(
            [
                'sides' => ['source' => $plan['sides']['target'], 'target' => $plan['sides']['source']],
                ...isset($plan['totals']) ? ['totals' => array_map(self::swapped(...), $plan['totals'])] : [],
            ] + $plan,
            $this->target,
            $this->source,
        );
    }

    /**
     * @param  array<string, mixed>  $total
     * @return array<string, mixed>
     */
    private static function swapped(array $total): array
    {
        /** @var list<array{source: string, target: string}> $by */
        $by = $total['by'] ?? [];

        return [
            ...$total,
            ...isset($total['source'], $total['target']) ? ['source' => $total['target'], 'target' => $total['source']] : [],
            ...$by === [] ? [] : [
                'by' => array_map(static fn(array $one): array => ['source' => $one['target'], 'target' => $one['source']], $by),
            ],
        ];
    }

    /** @param list<list<string>> $rows */
    public static function csv(array $rows): string
    {
        return implode('', array_map(CsvLine::of(...), [self::NAMES, ...$rows]));
    }

    /**
     * The smallest one that still fails: rows and parts of the plan are taken out, and cells made blank, for as long as it does.
     *
     * @param  callable(self): bool  $fails
     */
    public function shrunk(callable $fails): self
    {
        $smallest = $this;
        do {
            $isSmaller = false;
            foreach ($smallest->smaller() as $smaller) {
                if ($fails($smaller)) {
                    [$smallest, $isSmaller] = [$smaller, true];
                    break;
                }
            }
        } while ($isSmaller);

        return $smallest;
    }

    public function __toString(): string
    {
        return CanonicalJson::of($this->plan)."\n".self::csv($this->source)."\n".self::csv($this->target);
    }

    /** @return \Generator<int, self> each by one thing */
    private function smaller(): \Generator
    {
        foreach (['source', 'target'] as $side) {
            foreach ($this->{$side} as $row => $cells) {
                $rows = $this->{$side};
                unset($rows[$row]);
                yield $this->with($side, array_values($rows));
            }
        }
        foreach (['source', 'target'] as $side) {
            foreach (array_keys($this->plan['sides'][$side]) as $part) {
                $plan = $this->plan;
                if ($part !== 'repeats') {
                    unset($plan['sides'][$side][$part]);
                    yield new self($plan, $this->source, $this->target);
                } elseif ($plan['sides'][$side]['repeats'] !== ['policy' => 'set-aside']) {
                    $plan['sides'][$side]['repeats'] = ['policy' => 'set-aside'];
                    yield new self($plan, $this->source, $this->target);
                }
            }
        }
        foreach ($this->plan['columnPairs'] as $nth => $pair) {
            $plan = $this->plan;
            unset($plan['columnPairs'][$nth]);
            $plan['columnPairs'] = array_values($plan['columnPairs']);
            yield new self($plan, $this->source, $this->target);
            foreach (['forgives', 'tolerance'] as $rule) {
                if (isset($pair[$rule])) {
                    $plan = $this->plan;
                    unset($plan['columnPairs'][$nth][$rule]);
                    yield new self($plan, $this->source, $this->target);
                }
            }
        }
        foreach (['source', 'target'] as $side) {
            foreach ($this->{$side} as $row => $cells) {
                foreach ($cells as $column => $cell) {
                    if ($cell !== '' && $column > 1) {
                        yield $this->with(
                            $side,
                            array_map(
                                static fn(array $other, int $at): array => $at === $row
                                    ? array_map(
                                        static fn(string $value, int $place): string => $place === $column ? '' : $value,
                                        $other,
                                        array_keys($other),
                                    )
                                    : $other,
                                $this->{$side},
                                array_keys($this->{$side}),
                            ),
                        );
                    }
                }
            }
        }
    }

    /** @param list<list<string>> $rows */
    private function with(string $side, array $rows): self
    {
        return $side === 'source' ? new self($this->plan, $rows, $this->target) : new self($this->plan, $this->source, $rows);
    }
}
