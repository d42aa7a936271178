<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\Plan;
use PHPUnit\Framework\TestCase;

/** Plans that were written before the format of today. */
final class OlderPlansTest extends TestCase
{
    use PlanOfEverything;

    public function test_a_plan_of_format_1_is_read_and_means_the_same(): void
    {
        $old =
            '{"formatVersion":1,"key":[{"source":"a","target":"b"}],'.
            '"columnPairs":[{"id":"pair-000000000000","source":"c","target":"d","kind":"text"}],"leftOut":{"source":[],"target":["e"]}}';
        $plan = Plan::fromJson($old);

        self::assertSame(3, $plan->toArray()['formatVersion']);
        self::assertSame(
            [['a'], ['c'], ['e']],
            [
                $plan->keyNames(\NineTally\Core\Row\Side::Source),
                $plan->pairedNames(\NineTally\Core\Row\Side::Source),
                $plan->leftOut['target'],
            ],
        );
        self::assertTrue($plan->source->isDefault());
    }

    public function test_a_plan_of_format_2_is_read_with_the_words_of_today(): void
    {
        $step = static fn(string $kind, array $rest): array => ['id' => $kind, 'kind' => $kind] + $rest;
        $plan = [...array_diff_key(self::WHOLE, ['sides' => true, 'columnPairs' => true]), 'formatVersion' => 2];
        $steps = [
            $step('clean-text', ['columns' => ['fee'], 'actions' => [['action' => 'trim']]]),
            $step('drop-columns', ['columns' => ['note']]),
            $step('fold-columns', ['columns' => ['a', 'b'], 'namesInto' => 'n', 'valuesInto' => 'v', 'off' => true]),
            $step('spread-rows', ['namesFrom' => 'n', 'valuesFrom' => 'v', 'into' => ['a'], 'off' => true]),
            $step('leave-out-blank-rows', []),
        ];
        $read = Plan::fromJson(
            (string) json_encode(
                $plan + [
                    'columnPairs' => [
                        [
                            'id' => 'pair-000000000001',
                            'source' => 'fee',
                            'target' => 'fee',
                            'kind' => 'number',
                            'tolerance' => ['measure' => 'absolute', 'most' => '1'],
                        ],
                    ],
                    'sides' => ['source' => ['shape' => $steps]],
                    'references' => ['Bands' => ['shape' => [$steps[0]]]],
                ],
            ),
        );

        self::assertSame(
            ['tidy-text', 'leave-out-columns', 'columns-into-rows', 'rows-into-columns', 'leave-out-blank-rows'],
            array_column($read->source->preparation->steps, 'kind'),
        );
        self::assertSame('tidy-text', $read->references['Bands']->preparation->steps[0]['kind']);
        self::assertSame('absolute', $read->columnPairs[0]->tolerance?->by);
        self::assertSame($read->toArray(), Plan::fromJson((string) json_encode($read->toArray()))->toArray());
    }
}
