<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use NineTally\Tests\Preparation\Prepared;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A value under a declaration is one and the same in steps, conditions, sums, policies and the comparison. */
final class OneReadingOfValuesTest extends TestCase
{
    use Prepared;
    use Tallied;

    private const VALUES = [
        'number' => [
            '10', '10.0', '010', '1,5', '1.5', '1.010', '1.010,5', '1,010.5', '1 010', '-3', '+4', ' 7 ', '1e3', 'ten', '10%', '0', '-0',
            'NULL', '',
        ],
        'date' => [
            '2024-03-04', '04/03/2024', '4.3.2024', '4 Mar 2024', '20240304', '2024-3-4', '31/02/2024', '13/12/2024', 'soon', 'NULL', '',
        ],
    ];

    private const DECLARED = [
        'number' => [
            [],
            ['decimalMark' => ','],
            ['groupMark' => ','],
            ['decimalMark' => ',', 'groupMark' => '.', 'blankTokens' => ['NULL', '0']],
        ],
        'date' => [
            [],
            ['dateForms' => ['dd/MM/yyyy']],
            ['dateForms' => ['d.M.yyyy', 'd MMM yyyy'], 'blankTokens' => ['NULL']],
            ['dateForms' => ['yyyyMMdd']],
        ],
    ];

    /** @param array<string, mixed> $declared */
    #[DataProvider('values')]
    public function test_a_value_reads_the_same_everywhere(string $kind, array $declared, string $value): void
    {
        $plan = $this->planOf($kind, $declared);
        $reading = $plan->source->reading('x', Kind::from($kind));
        $isBlank = $reading->isBlank($value);
        $step = fn(string $json): array => $this->stepped($kind, $declared, $value, $json);

        $written = $step("{\"kind\": \"read-{$kind}\", \"columns\": [\"x\"]}")[0][1];
        $canonical = ! $isBlank && $reading->canRead($value) ? $written : null;
        // What a step writes needs no declaration, and is the value that it read.
        self::assertSame(
            $canonical === null ? $value : $this->canonical($reading, $value),
            $canonical === null ? $written : $this->canonical((new SideRules)->reading('x', Kind::from($kind)), $written),
            'a step that reads',
        );
        $least = $kind === 'number' ? ['at-least', '-9999999'] : ['on-or-after', '0001-01-01'];
        self::assertCount(
            $canonical === null ? 0 : 1,
            $step("{\"kind\": \"keep-rows\", \"condition\": {\"column\": \"x\", \"test\": \"{$least[0]}\", \"value\": \"{$least[1]}\"}}"),
            'a condition',
        );
        self::assertCount(
            $isBlank ? 1 : 0,
            $step('{"kind": "keep-rows", "condition": {"column": "x", "test": "is-blank"}}'),
            'a condition about blanks',
        );
        self::assertSame(
            [[$isBlank ? '0' : '1']],
            $step('{"kind": "group-rows", "by": [], "totals": [{"total": "count", "column": "x", "into": "n"}]}'),
            'a count of values',
        );
        if ($kind === 'number') {
            self::assertSame(
                [[$canonical ?? ($isBlank ? '' : '0')]],
                array_map(
                    static fn(array $row): array => [$canonical === null && ! $isBlank && $row[0] === '' ? '0' : $row[0]],
                    $step('{"kind": "group-rows", "by": [], "totals": [{"total": "sum", "column": "x", "into": "n"}]}'),
                ),
                'a sum',
            );
        }

        // Against the canonical form, which needs no declaration: equal if and only if the value can be read.
        $other = $canonical ?? ($kind === 'number' ? '123456789' : '1900-01-01');
        $summary = $this->tallyOf($plan, $this->reader("k,x\n1,\"{$value}\"\n", 'old.csv'), $this->reader("k,x\n1,{$other}\n", 'new.csv'));
        self::assertSame($canonical === null ? 0 : 1, $summary->source->agreed, 'the comparison');

        // Of two rows with one key the highest is kept: the one that holds the value, if that can be read at all.
        $low = $kind === 'number' ? '-9999999' : '0001-01-01';
        $keeping = $this->planOf($kind, $declared, ['repeats' => ['policy' => 'keep-highest', 'column' => 'x', 'kind' => $kind]]);
        $lowest = $this->lowest($kind, $declared);
        $this->tallyOf(
            $keeping,
            $this->reader("k,x\n1,\"{$value}\"\n1,\"{$lowest}\"\n", 'old.csv'),
            $this->reader("k,x\n1,{$low}\n", 'new.csv'),
        );
        $listed = array_values(
            array_map(
                static fn(RowFinding $row): ?int => $row->source?->line,
                array_filter(
                    $this->found,
                    static fn(RowFinding $row): bool => $row->class->value === 'repeated' && $row->side?->value === 'source',
                ),
            ),
        );
        self::assertSame([$canonical === null ? 2 : 3], $listed, 'a policy');
    }

    /**
     * @param  array<string, mixed>  $declared
     * @return list<list<string>> the rows behind a step
     */
    private function stepped(string $kind, array $declared, string $value, string $step): array
    {
        /** @var array<string, mixed> $document */
        $document = json_decode($step, true);

        return array_slice($this->prepared($this->under($kind, $declared, $document), ['k', 'x'], [['1', $value]]), 1);
    }

    /** @return iterable<string, array{string, array<string, mixed>, string}> */
    public static function values(): iterable
    {
        foreach (self::VALUES as $kind => $values) {
            foreach (self::DECLARED[$kind] as $nth => $declared) {
                foreach ($values as $value) {
                    yield "{$kind} {$nth} {$value}" => [$kind, $declared, $value];
                }
            }
        }
    }

    /**
     * @param  array<string, mixed>  $declared
     * @param  array<string, mixed>  $more
     */
    private function planOf(string $kind, array $declared, array $more = []): Plan
    {
        $side = $declared + $more;

        return Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => 3,
                'key' => [['source' => 'k', 'target' => 'k']],
                'columnPairs' => [
                    [
                        'id' => 'pair-000000000000',
                        'source' => 'x',
                        'target' => 'x',
                        'kind' => $kind,
                        'forgives' => ['number-form', 'date-form', 'leading-zeros', 'spacing'],
                    ],
                ],
                ...$side === [] ? [] : ['sides' => ['source' => $side]],
            ]),
        );
    }

    /**
     * @param  array<string, mixed>  $declared
     * @param  array<string, mixed>  ...$steps
     */
    private function under(string $kind, array $declared, array ...$steps): Preparation
    {
        return $this->planOf($kind, $declared, [
            'preparation' => array_map(static fn(array $step): array => ['id' => 's'] + $step, array_values($steps)),
        ])->source->preparation;
    }

    private function canonical(Reading $reading, string $value): ?string
    {
        return $reading->kind === Kind::Number ? $reading->number($value)?->canonical() : $reading->moment($value)?->canonical();
    }

    /**
     * @param  array<string, mixed>  $declared
     * @return string lower than every value, written as declared
     */
    private function lowest(string $kind, array $declared): string
    {
        return $kind === 'number' ? '-9999999' : match ($declared['dateForms'] ?? null) {
            null => '0001-01-01',
            ['dd/MM/yyyy'] => '01/01/0001',
            ['yyyyMMdd'] => '00010101',
            default => '1.1.0001',
        };
    }
}
