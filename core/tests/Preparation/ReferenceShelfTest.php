<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\ReferenceShelf;
use NineTally\Core\Preparation\UnusableStep;
use PHPUnit\Framework\TestCase;

/** A reference has a preparation, a key and declarations of its own, and is accounted for as a side is. */
final class ReferenceShelfTest extends TestCase
{
    use Prepared;

    private const BANDS = "from;until;fee\n0;6,5;120,00\n6,5;12,0;180,50\n;;subtotal\nbad\n12,0;NULL;240,00\n";

    private const RULES = [
        'decimalMark' => ',',
        'blankTokens' => ['NULL'],
        'preparation' => [
            ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'fee', 'test' => 'is', 'value' => 'subtotal']],
            ['id' => 'b', 'kind' => 'read-number', 'columns' => ['fee']],
        ],
        'key' => ['from'],
    ];

    public function test_a_reference_is_prepared_read_by_what_it_declares_and_accounted_for(): void
    {
        $preparation = $this->plan(self::RULES, [
            [
                'id' => 'x',
                'kind' => 'look-up-band',
                'reference' => 'Bands',
                'column' => 'length',
                'from' => 'from',
                'until' => 'until',
                'take' => [['reference' => 'fee', 'into' => 'fee']],
            ],
        ])->source->preparation;
        $shelf = $this->shelf($preparation->referenceRules);

        // The side writes its lengths with a point, the reference with a comma.
        self::assertSame(
            [['length', 'fee'], ['6.4', '120'], ['6.5', '180.5'], ['40', '240'], ['-1', '']],
            $this->prepared($preparation, ['length'], [['6.4'], ['6.5'], ['40'], ['-1']], $shelf),
        );
        self::assertSame(['found a record' => 3, 'below every band' => 1], $this->figures[1]->notes);
        self::assertSame(
            [
                'name' => 'Bands',
                'read' => 5,
                'refused' => 1,
                'delivered' => 4,
                'leftOut' => 1,
                'made' => 0,
                'condensed' => 0,
                'prepared' => 3,
                'repeatedKeys' => 0,
                'blankKeys' => 0,
            ],
            array_diff_key($shelf->ledgers()[0], ['steps' => true]),
        );
        self::assertSame(
            ['Leave out rows where fee is "subtotal"', 'Read fee as a number'],
            array_column($shelf->ledgers()[0]['steps'], 'sentence'),
        );
    }

    public function test_a_value_above_the_last_band_is_said_as_such(): void
    {
        $step = [
            'id' => 'x',
            'kind' => 'look-up-band',
            'reference' => 'Bands',
            'column' => 'length',
            'from' => 'from',
            'until' => 'until',
            'take' => [['reference' => 'fee', 'into' => 'fee']],
        ];
        $preparation = $this->plan(self::RULES, [$step])->source->preparation;
        $this->prepared(
            $preparation,
            ['length'],
            [['12'], ['7']],
            $this->shelf(
                $preparation->referenceRules,
                str_replace('12,0;NULL;240,00', '8,0;11,0;240,00', str_replace('6,5;12,0', '6,5;7,0', self::BANDS)),
            ),
        );

        self::assertSame(['above the last band' => 1, 'between two bands' => 1], $this->figures[1]->notes);
    }

    public function test_keys_that_repeat_are_counted_and_another_preparation_has_another_digest(): void
    {
        $preparation = $this->plan(['key' => ['code']], [$this->lookUp()])->source->preparation;
        $shelf = $this->shelf($preparation->referenceRules, "code,name\nKB,Kestrel Broad\nLM,Lime Mere\nLM,Long Mere\n,none\n");
        $shelf->named('Bands');

        self::assertSame([1, 1], [$shelf->ledgers()[0]['repeatedKeys'], $shelf->ledgers()[0]['blankKeys']]);
        self::assertNotSame(
            $preparation->digest(),
            $this->plan(['blankTokens' => ['-']], [$this->lookUp()])->source->preparation->digest(),
        );
    }

    public function test_a_reference_that_looks_up_from_itself_is_refused(): void
    {
        $preparation = $this->plan(['preparation' => [$this->lookUp()]], [$this->lookUp()])->source->preparation;

        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage('The reference "Bands" is looked up from while it is prepared itself.');
        $this->shelf($preparation->referenceRules, "code,name\nKB,Kestrel Broad\n")->named('Bands');
    }

    public function test_a_plan_with_references_is_written_and_read_again(): void
    {
        $plan = $this->plan(self::RULES, [$this->lookUp()]);

        self::assertSame($plan->canonicalJson(), Plan::fromJson($plan->canonicalJson())->canonicalJson());
        self::assertSame(self::RULES['key'], $plan->references['Bands']->key);
    }

    /** @return array<string, mixed> */
    private function lookUp(): array
    {
        return [
            'id' => 'x',
            'kind' => 'look-up',
            'reference' => 'Bands',
            'on' => [['column' => 'code', 'reference' => 'code']],
            'take' => [['reference' => 'name', 'into' => 'n']],
        ];
    }

    /**
     * @param  array<string, mixed>  $rules
     * @param  list<array<string, mixed>>  $steps
     */
    private function plan(array $rules, array $steps): Plan
    {
        return Plan::fromJson(
            CanonicalJson::of([
                'formatVersion' => 3,
                'key' => [['source' => 'k', 'target' => 'k']],
                'columnPairs' => [],
                'references' => ['Bands' => $rules],
                'sides' => ['source' => ['preparation' => $steps]],
            ]),
        );
    }

    /** @param array<string, \NineTally\Core\Preparation\ReferenceRules> $rules */
    private function shelf(array $rules, string $content = self::BANDS): ReferenceShelf
    {
        $path = $this->file($content, 'bands.csv');

        return new ReferenceShelf(
            [
                'Bands' => static fn(): PartStack => new PartStack([
                    ['reader' => (new ReaderCatalogue)->open($path, 'bands.csv'), 'label' => 'bands'],
                ]),
            ],
            $rules,
            $this->folder('groups'),
        );
    }
}
