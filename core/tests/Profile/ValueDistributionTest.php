<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Profile\ColumnProfile;
use NineTally\Core\Profile\ValueDistribution;
use PHPUnit\Framework\TestCase;

/** @phpstan-import-type Column from ValueDistribution */
final class ValueDistributionTest extends TestCase
{
    public function test_few_values_stand_each_by_itself_with_their_shares_of_all_rows(): void
    {
        $lie = ValueDistribution::of($this->column(['A', 'A', 'S', '']), $this->column(['A', 'V']));

        self::assertSame('value', $lie->by);
        self::assertSame(
            [
                ['label' => 'A', 'source' => 0.5, 'target' => 0.5],
                ['label' => 'V', 'source' => 0.0, 'target' => 0.5],
                ['label' => 'S', 'source' => 0.25, 'target' => 0.0],
            ],
            $lie->bins,
        );
        self::assertTrue($lie->looksChanged);
    }

    public function test_numbers_share_one_axis_from_the_least_to_the_greatest_of_both(): void
    {
        $lie = ValueDistribution::of(
            $this->column(array_map(strval(...), range(0, 99))),
            $this->column(array_map(strval(...), range(100, 199))),
        );

        self::assertSame(
            ['number', 10, '0 to 19.9', '179 to 199'],
            [$lie->by, count($lie->bins), $lie->bins[0]['label'], $lie->bins[9]['label']],
        );
        self::assertEqualsWithDelta(1.0, array_sum(array_column($lie->bins, 'source')), 0.0001);
        self::assertSame([0.0, 0.0], [$lie->bins[9]['source'], $lie->bins[0]['target']]);
    }

    public function test_a_whole_number_on_the_axis_keeps_its_zeros(): void
    {
        $labels = fn(int $from, int $to, int $step): array => array_column(
            ValueDistribution::of(
                $this->column(array_map(static fn(int $value): string => (string) $value, range($from, $to, $step))),
                null,
            )->bins,
            'label',
        );

        self::assertSame(['1,200 to 1,290', '1,290 to 1,380'], array_slice($labels(1_200, 2_100, 10), 0, 2));
        self::assertSame(['0 to 40', '40 to 80', '80 to 120'], array_slice($labels(0, 400, 4), 0, 3));
    }

    public function test_days_lie_by_day_and_other_texts_by_length(): void
    {
        $days = array_map(static fn(int $day): string => sprintf('2027-%02d-%02d', $day % 12 + 1, $day % 28 + 1), range(0, 99));
        $texts = array_map(static fn(int $row): string => str_repeat('x', $row % 30 + 1)."{$row}", range(0, 99));

        self::assertSame(
            ['day', '2027-01-01 to 2027-02-06'],
            [
                ValueDistribution::of($this->column($days), $this->column($days))->by,
                ValueDistribution::of($this->column($days), null)->bins[0]['label'],
            ],
        );
        self::assertSame('length', ValueDistribution::of($this->column($texts), $this->column($days))->by);
        self::assertFalse(ValueDistribution::of($this->column($texts), $this->column($texts))->looksChanged);
    }

    public function test_another_shape_looks_changed_and_a_column_alone_does_not(): void
    {
        $old = $this->column(array_map(static fn(int $row): string => "WN {$row}", range(100, 199)));
        $new = $this->column(array_map(static fn(int $row): string => "WN-{$row}", range(100, 199)));

        self::assertTrue(ValueDistribution::of($old, $new)->looksChanged);
        self::assertFalse(ValueDistribution::of($old, null)->looksChanged);
        self::assertSame(
            ['nothing', []],
            [ValueDistribution::of($this->column(['', '']), null)->by, ValueDistribution::of(null, null)->bins],
        );
    }

    /**
     * @param  list<string>  $values
     * @return Column
     */
    private function column(array $values): array
    {
        $column = new ColumnProfile('v');
        array_map($column->see(...), $values);

        return $column->toArray();
    }
}
