<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\ColumnNames;
use NineTally\Core\Advice\PairProposal;
use NineTally\Core\Advice\PairProposals;
use NineTally\Core\Advice\ValueSketch;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PairProposalsTest extends TestCase
{
    #[DataProvider('names')]
    public function test_names_are_alike_whatever_their_case_and_spelling(string $one, string $other, float $least, float $most): void
    {
        $likeness = ColumnNames::likeness($one, $other);

        self::assertGreaterThanOrEqual($least, $likeness);
        self::assertLessThanOrEqual($most, $likeness);
        self::assertSame($likeness, ColumnNames::likeness($other, $one));
    }

    /** @return iterable<string, array{string, string, float, float}> */
    public static function names(): iterable
    {
        yield 'the same' => ['berth', 'berth', 1.0, 1.0];
        yield 'case and separators' => ['boatLength', 'BOAT_LENGTH', 0.95, 0.95];
        yield 'an abbreviation' => ['licence_no', 'Licence Number', 0.95, 0.95];
        yield 'the beginning of a word' => ['insp_date', 'inspection date', 0.85, 0.94];
        yield 'one word more' => ['holder', 'holder_name', 0.6, 0.8];
        yield 'a slip of the pen' => ['basin', 'bassin', 0.6, 0.9];
        yield 'nothing alike' => ['annual_fee', 'electric_post', 0.0, 0.3];
        yield 'short names that say nothing' => ['c1', 'c12', 0.0, 0.6];
    }

    public function test_values_tell_columns_apart_whose_names_say_nothing(): void
    {
        $proposals = $this->proposals(
            [
                'paid_until' => static fn(int $row): string => sprintf('2026-%02d-%02d', ($row % 12) + 1, ($row % 28) + 1),
                'holder' => static fn(int $row): string => "Holder {$row}",
                'post' => static fn(int $row): string => ['Y', 'N'][$row % 2],
                'kind' => static fn(int $row): string => ['Y', 'N', 'N', 'N'][$row % 4],
            ],
            [
                'c1' => static fn(int $row): string => ['Y', 'N', 'N', 'N'][$row % 4],
                'c2' => static fn(int $row): string => " HOLDER  {$row}",
                'c3' => static fn(int $row): string => ['Y', 'N'][$row % 2],
                'c4' => static fn(int $row): string => sprintf('%02d/%02d/2026', ($row % 28) + 1, ($row % 12) + 1),
            ],
        );

        self::assertSame(
            ['paid_until c4 strong', 'holder c2 strong', 'post c3', 'kind c1'],
            array_map(
                static fn(PairProposal $pair): string => trim(
                    "{$pair->source} {$pair->target} ".($pair->strength === 'strong' ? 'strong' : ''),
                ),
                $proposals,
            ),
        );
        self::assertContains('100 % of the values stand in both', $proposals[1]->reasons);
    }

    public function test_amounts_and_words_for_yes_and_no_are_told_whatever_their_form(): void
    {
        $proposals = $this->proposals(
            [
                'Gebuehr' => static fn(int $row): string => number_format($row * 13.37, 2, ',', '.').' €',
                'Rabatt' => static fn(int $row): string => '('.($row + 1).')',
                'Aktiv' => static fn(int $row): string => $row % 3 === 0 ? 'Ja' : 'Nein',
                'code' => static fn(int $row): string => sprintf('TNB %03d', $row),
            ],
            [
                'active' => static fn(int $row): string => $row % 3 === 0 ? '1' : '0',
                'fee' => static fn(int $row): string => (string) round($row * 13.37, 2),
                'discount' => static fn(int $row): string => '-'.($row + 1),
                'number' => static fn(int $row): string => sprintf('%d00', $row + 5_000),
            ],
        );

        self::assertSame(
            ['Gebuehr fee strong', 'Rabatt discount strong', 'Aktiv active likely'],
            array_map(static fn(PairProposal $pair): string => "{$pair->source} {$pair->target} {$pair->strength}", $proposals),
        );
        self::assertContains('both say yes and no', $proposals[2]->reasons);
    }

    public function test_a_name_alone_is_no_strong_reason_where_the_values_differ(): void
    {
        $proposals = $this->proposals(
            ['code' => static fn(int $row): string => "A{$row}"],
            ['code' => static fn(int $row): string => sprintf('%d.50', 9_000 + $row)],
        );

        self::assertSame('likely', $proposals[0]->strength);
        self::assertContains('no value stands in both', $proposals[0]->reasons);
    }

    public function test_what_has_nothing_in_common_is_not_proposed(): void
    {
        self::assertSame(
            [],
            $this->proposals(
                ['holder' => static fn(int $row): string => "Ann {$row}"],
                ['fee' => static fn(int $row): string => (string) $row],
            ),
        );
    }

    public function test_two_columns_that_are_alike_are_not_called_strong(): void
    {
        $same = static fn(int $row): string => "Berth {$row}";
        $proposals = $this->proposals(['a' => $same], ['x' => $same, 'y' => $same]);

        self::assertSame(['likely'], array_map(static fn(PairProposal $pair): string => $pair->strength, $proposals));
    }

    public function test_a_sketch_of_many_values_still_knows_how_many_are_shared(): void
    {
        [$one, $other] = [new ValueSketch('one'), new ValueSketch('other')];
        for ($value = 0; $value < 40_000; $value++) {
            $one->see("value {$value}");
            $other->see('value '.($value + 20_000));
        }
        $one->finish();
        $other->finish();

        self::assertEqualsWithDelta(0.5, $one->overlap($other), 0.06);
        self::assertEqualsWithDelta(40_000, $one->distinct(), 4_000);
    }

    /**
     * @param  array<string, \Closure(int): string>  $source  name => value of a row
     * @param  array<string, \Closure(int): string>  $target
     * @return list<PairProposal>
     */
    private function proposals(array $source, array $target): array
    {
        /** @param \Closure(int): string $valueOf */
        $sketch = static function (string $name, \Closure $valueOf): ValueSketch {
            $sketch = new ValueSketch($name);
            foreach (range(0, 999) as $row) {
                $value = $valueOf($row);
                self::assertIsString($value);
                $sketch->see($value);
            }
            $sketch->finish();

            return $sketch;
        };

        return (new PairProposals)->of(array_map($sketch, array_keys($source), $source), array_map($sketch, array_keys($target), $target));
    }

    public function test_columns_pair_by_their_names_where_the_words_are_the_same_and_no_others_are(): void
    {
        self::assertSame(
            ['basin' => 'basin', 'US_Gross' => 'US Gross', 'holderNo' => 'Holder no'],
            ColumnNames::pairs(
                ['basin', 'US_Gross', 'holderNo', 'fee_1', 'fee-1', 'note'],
                ['US Gross', 'Holder no', 'basin', 'fee 1', 'remarks', 'comment'],
            ),
        );
    }
}
