<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\MatchedRows;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Value\Kind;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The pairs of rows that a tally matches, and what another dataset takes from them. */
final class MatchedRowsTest extends TestCase
{
    use Tallied;

    private const OLD = "no,name,seen\nH1,Ilse,3\nH2,Ezekiel,1\nH3,Tove,1\nH4,Imre,1\nH4,Imre,2\n,Nobody,1\n";

    private const NEW = "number,who\nh1,Ilse\n701,Ezekiel\nH4,Imre\n702,Ruth\n,Nobody\n";

    /** @param list<string> $expected */
    #[DataProvider('policies')]
    public function test_are_those_that_a_tally_compares_with_those_that_a_bridge_joins(RepeatsPolicy $policy, array $expected): void
    {
        $plan = $this->plan($policy);
        [$old, $new] = [$this->reader(self::OLD, 'old.csv'), $this->reader(self::NEW, 'new.csv')];
        $matched = new MatchedRows($plan, new Sides($old, $new), $this->folder('matched'));
        $rows = array_map(static fn(array $row): string => implode(' ', $row), iterator_to_array($matched->rows(), false));
        sort($rows);

        self::assertSame(['source no', 'source name', 'source seen', 'target number', 'target who'], $matched->columns());
        self::assertSame($expected, $rows);
        $summary = $this->tallyOf($plan, $old, $new, settings: new TallySettings(partitions: 4));
        self::assertCount($summary->source->agreed + $summary->source->changed, $rows);
        self::assertNotContains(RowClass::Refused, array_map(static fn($row): RowClass => $row->class, $this->found));
    }

    /** @return iterable<string, array{RepeatsPolicy, list<string>}> */
    public static function policies(): iterable
    {
        $met = ['H1 Ilse 3 h1 Ilse', 'H2 Ezekiel 1 701 Ezekiel'];
        yield 'what is set aside is not matched' => [RepeatsPolicy::setAside(), $met];
        yield 'of repeated rows the one that is kept' => [
            RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'seen', Kind::Number),
            [...$met, 'H4 Imre 2 H4 Imre'],
        ];
        yield 'in order' => [RepeatsPolicy::of(PolicyId::PairInOrder), [...$met, 'H4 Imre 1 H4 Imre']];
    }

    public function test_a_step_puts_the_new_number_for_the_old_and_counts_what_it_cannot(): void
    {
        $step = [
            'id' => 'a',
            'kind' => 'as-matched',
            'reference' => 'Holders',
            'on' => [['column' => 'holder', 'reference' => 'no']],
            'take' => [['reference' => 'number', 'into' => 'holder'], ['reference' => 'who', 'into' => 'name']],
        ];
        $preparation = new Preparation([$step]);
        $figures = new StepFigures;
        $references = self::createStub(References::class);
        $references->method('named')->willReturnCallback(static fn(string $name): ReferenceTable => new ReferenceTable(
            $name,
            ['source no', 'target number', 'target who'],
            [['H1', '701', 'Ilse'], ['H2', '702', 'Tove'], ['H2', '703', 'Tove'], ['H5', '704', 'Imre'], ['H5', '704', 'Imre']],
        ));
        $rows = [['KB', 'H1'], ['LM', 'H2'], ['OT', 'H9'], ['NQ', ''], ['SB', 'H5']];
        $prepared = iterator_to_array($preparation->run(
            new \ArrayIterator($rows),
            ['basin', 'holder'],
            static fn(int $number): StepContext => new StepContext($figures, '', $references, []),
            'source',
        ), false);

        self::assertSame(['Holders as matched'], $preparation->references());
        self::assertSame(['basin', 'holder', 'name'], $preparation->columns(['basin', 'holder'], 'source'));
        self::assertSame(
            [['KB', '701', 'Ilse'], ['LM', 'H2', ''], ['OT', 'H9', ''], ['NQ', '', ''], ['SB', '704', 'Imre']],
            $prepared,
        );
        self::assertEquals(
            ['found a record' => 3, 'matched to more than one' => 1, 'without a record' => 1, 'blank key' => 1],
            $figures->toArray()['notes'],
        );
    }

    private function plan(RepeatsPolicy $policy): Plan
    {
        $other = $policy->id === PolicyId::PairInOrder ? $policy : RepeatsPolicy::setAside();

        return new Plan(
            [new KeyColumn('no', 'number', ['case'])],
            [ColumnPair::between('name', 'who')],
            source: new SideRules(repeats: $policy),
            target: new SideRules(repeats: $other),
            bridges: new Bridges([new Bridge(['H2'], ['701']), new Bridge(['H3'], ['h1'])]),
        );
    }
}
