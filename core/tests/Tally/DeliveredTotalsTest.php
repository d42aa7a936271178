<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use Brick\Math\BigDecimal;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\NoReferences;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Totals\TotalReport;
use NineTally\Tests\GivenDeliveries;
use PHPUnit\Framework\TestCase;

/** Totals over rows as they were delivered: what the steps of either side did is part of the way. Figures are worked out by hand. */
final class DeliveredTotalsTest extends TestCase
{
    use Tallied;

    private const FEE = ['source' => 'fee', 'target' => 'fee'];

    private const BASIN = ['source' => 'basin', 'target' => 'basin'];

    public function test_what_steps_left_out_and_altered_are_shares_of_the_difference(): void
    {
        $totals = $this->totals(
            "basin,berth,fee\nKB,1,10\nno,such,thing,here\nKB,2,20\nXX,3,70\nLM,4,1000\n",
            "basin,berth,fee\nKB,1,10\nKB,2,25\nLM,4,1\nTH,9,4\n",
            [
                ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'value' => 'XX']],
                [
                    'id' => 'b',
                    'kind' => 'tidy-text',
                    'columns' => ['fee'],
                    'actions' => [['action' => 'replace', 'find' => '000', 'with' => '']],
                ],
            ],
            [['id' => 'c', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'value' => 'TH']]],
        );

        // 1,100 and 40 were delivered; 31 and 36 are left.
        self::assertSame(['1100', '40', '-1060'], [$totals[0]->all['source'], $totals[0]->all['target'], $totals[0]->all['difference']]);
        self::assertSame(
            ['altered source' => '-999', 'left-out source' => '-70', 'left-out target' => '4', 'pattern 1' => '5'],
            array_column($totals[0]->all['shares'], 'net', 'name'),
        );
        self::assertSame(['LM' => '-999', 'XX' => '-70', 'KB' => '5', 'TH' => '4'], array_map(
            static fn(array $shares): string => (string) BigDecimal::sum(...array_column($shares, 'net')),
            array_column(array_map(static fn(array $group): array => [$group['labels'][0], $group['shares']], $totals[0]->groups), 1, 0),
        ));
        self::assertSame(['4', '4', '0'], [$totals[1]->all['source'], $totals[1]->all['target'], $totals[1]->all['difference']]);
        self::assertTrue($totals[1]->all['cancels']);
    }

    public function test_rows_that_steps_made_or_put_together_are_shares_of_the_difference(): void
    {
        $totals = $this->totals(
            "basin,berth,fee\nKB,1,10\nKB,1,5\nLM,2,7\n",
            "basin,berth,fee\nKB,1,15\nLM,2,7\n",
            [
                [
                    'id' => 'a',
                    'kind' => 'group-rows',
                    'by' => ['basin', 'berth'],
                    'totals' => [['total' => 'sum', 'column' => 'fee', 'into' => 'fee']],
                ],
            ],
            [],
        );

        self::assertSame(['22', '22'], [$totals[0]->all['source'], $totals[0]->all['target']]);
        self::assertSame([[], true], [$totals[0]->groups[1]['shares'], ! $totals[0]->differs()]);
        self::assertSame(['condensed source' => '-1'], array_column($totals[1]->all['shares'], 'net', 'name'));
    }

    /**
     * @param  list<array<string, mixed>>  $ofSource  steps
     * @param  list<array<string, mixed>>  $ofTarget
     * @return list<TotalReport> the sum of fees by basin, and the number of rows
     */
    private function totals(string $source, string $target, array $ofSource, array $ofTarget): array
    {
        $plan = Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => Plan::FORMAT_VERSION,
                'key' => [self::BASIN, ['source' => 'berth', 'target' => 'berth']],
                'columnPairs' => [['id' => 'pair-000000000001', ...self::FEE, 'kind' => 'number', 'forgives' => ['number-form']]],
                'sides' => array_filter([
                    'source' => array_filter(['preparation' => $ofSource]),
                    'target' => array_filter(['preparation' => $ofTarget]),
                ]),
                'totals' => [
                    ['measure' => 'sum', ...self::FEE, 'by' => [self::BASIN], 'over' => 'delivered'],
                    ['measure' => 'rows', 'over' => 'delivered'],
                ],
            ]),
        );
        $stacks = (new Sides($source, $target))->map(
            fn(string $content): PartStack => new PartStack([['reader' => $this->reader($content, md5($content).'.csv'), 'label' => '']]),
        );
        $readers = Sides::each(function (Side $side) use ($plan, $stacks): PreparedReader {
            $prepared = PreparedSide::in($this->folder("prepared-{$side->value}-".bin2hex(random_bytes(4))));
            $prepared->make($stacks->of($side), $plan->side($side)->preparation, $side->value, static fn() => null, new NoReferences);

            return new PreparedReader($prepared, $side->value);
        });
        $workspace = $this->folder('work-'.bin2hex(random_bytes(4)));
        $findings = (new TallyRun($plan, $readers, $workspace, delivered: new GivenDeliveries($stacks)))->findings();
        iterator_to_array($findings, false);

        return $findings->getReturn()->reports->totals;
    }
}
