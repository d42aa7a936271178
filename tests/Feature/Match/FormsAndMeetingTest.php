<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** How values are written, and what of form keeps rows apart, as it is advised for a draft. */
final class FormsAndMeetingTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_pairs_that_are_more_than_text_are_named_with_the_rows_that_tell_their_form(): void
    {
        $this->deliver(
            'source',
            "basin,fee,since,seen,left\nKB,1012.50,2024-03-01,2024-05-06,\nLM,2,2024-02-03,2024-05-17,\nNQ,3,2024-03-03,2024-05-18,\n",
        );
        $this->deliver(
            'target',
            "basin,fee,since,seen,left\nKB,\"1.012,5\",01/03/2024,06.05.2024,NULL\nLM,\"2,00\",03/02/2024,17.05.2024,NULL\n".
                "NQ,\"3,00\",05/03/2024,18.05.2024,NULL\n",
        );
        /** @var array{columnPairs: list<array{source: string}>} $plan */
        $plan = $this->api('GET', "/datasets/{$this->dataset->id}/plan")
            ->assertOk()
            ->json('draft');
        $advice = fn(): TestResponse => $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertOk();

        $advice()->assertJson([
            'forms' => [
                'isWaiting' => false,
                'forms' => [
                    [
                        'source' => 'fee',
                        'kind' => 'number',
                        'isText' => true,
                        'compared' => 3,
                        'asText' => 0,
                        'ways' => [['source' => [], 'target' => ['decimalMark' => ',', 'groupMark' => '.'], 'agree' => 3]],
                        'rows' => [['sourceLine' => 2, 'targetLine' => 2, 'source' => '1012.50', 'target' => '1.012,5']],
                    ],
                    ['source' => 'seen', 'ways' => [['target' => ['dateForms' => ['dd.MM.yyyy']]]]],
                    ['source' => 'since', 'kind' => 'date', 'ways' => [['target' => ['dateForms' => ['dd/MM/yyyy']], 'agree' => 2]]],
                ],
                'tokens' => [['side' => 'target', 'column' => 'left', 'token' => 'NULL', 'rows' => 3, 'blank' => 3]],
            ],
        ]);

        // A plan that reads them so, and does not say in which form, is told what it lacks until it does.
        $typed = [
            ...$plan,
            'columnPairs' => array_map(
                static fn(array $pair): array => [
                    ...$pair,
                    'kind' => ['fee' => 'number', 'since' => 'date', 'seen' => 'date'][$pair['source']] ?? 'text',
                ],
                $plan['columnPairs'],
            ),
        ];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $typed)->assertOk();
        self::assertSame([false, false, false], array_column($this->objects($advice(), 'forms.forms'), 'isText'));
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...$typed,
            'sides' => [
                'target' => [
                    'dateForms' => ['dd/MM/yyyy', 'dd.MM.yyyy'],
                    'columns' => ['fee' => ['decimalMark' => ',', 'groupMark' => '.'], 'left' => ['blankTokens' => ['NULL']]],
                ],
            ],
        ])->assertOk();
        $advice()->assertJson(['forms' => ['forms' => [], 'tokens' => []]]);
    }

    public function test_what_nobody_can_tell_is_asked_with_every_way_it_could_be(): void
    {
        $this->deliver('source', "berth,since\n1,2024-03-01\n2,2024-05-06\n");
        $this->deliver('target', "berth,since\n1,03/03/2024\n2,06/06/2024\n");
        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertOk();

        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJsonPath('forms.forms.0.ways.*.target.dateForms', [
            ['dd/MM/yyyy'],
            ['MM/dd/yyyy'],
        ]);
    }

    public function test_values_that_are_masked_are_not_shown_as_examples(): void
    {
        $this->deliver('source', "berth,fee\n1,1012.50\n2,7\n");
        $this->deliver('target', "berth,fee\n1,\"1.012,5\"\n2,\"7,0\"\n");
        /** @var array<string, mixed> $plan */
        $plan = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...$plan,
            'sensitive' => ['source' => ['fee'], 'target' => ['fee']],
        ])->assertOk();

        $advice = $this->api('GET', "/datasets/{$this->dataset->id}/advice");
        $advice->assertJsonPath('forms.forms.0.ways.0.agree', 2);
        self::assertStringNotContainsString('1012', (string) $advice->content());
        self::assertStringNotContainsString('1.012', (string) $advice->content());
    }

    public function test_says_what_keeps_rows_apart_by_the_key_and_what_each_cause_would_bring_in(): void
    {
        $this->deliver('source', "depot,goods,fee\n00037,Coal,1\n00038,coal,2\n4,Hay,3\n5,Slate,4\n");
        $this->deliver('target', "depot,goods,fee\n37,Coal,1\n38,Coal,2\n4,Hay,3\n9,Lime,4\n");
        /** @var array<string, mixed> $plan */
        $plan = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');
        $key = fn(string ...$forgives): array => [
            ['source' => 'depot', 'target' => 'depot', ...$forgives === [] ? [] : ['forgives' => $forgives]],
            ['source' => 'goods', 'target' => 'goods'],
        ];
        $kept = [...$plan, 'key' => $key(), 'columnPairs' => []];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $kept)->assertOk();

        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJson([
            'meeting' => [
                'isWaiting' => false,
                'found' => [
                    'rows' => ['source' => 4, 'target' => 4],
                    'met' => 1,
                    'rungs' => [
                        [
                            'column' => 'depot',
                            'cause' => 'leading-zeros',
                            'brings' => 1,
                            'shares' => ['source' => 0, 'target' => 0],
                            'left' => 2,
                        ],
                        ['column' => 'goods', 'cause' => 'case', 'brings' => 0],
                    ],
                    'together' => ['rungs' => [0, 1], 'brings' => 2, 'left' => 1],
                    'beside' => [['source' => ['5', 'Slate'], 'target' => ['9', 'Lime']]],
                ],
            ],
        ]);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [...$kept, 'key' => $key('leading-zeros')])->assertOk();
        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJsonPath('meeting.found.met', 2);
    }

    public function test_a_key_by_which_less_than_half_of_the_rows_meet_is_put_into_no_plan_by_itself(): void
    {
        $this->deliver('source', "name,version\na,1\nb,1\nc,1\nd,1\n");
        $this->deliver('target', "name,version\na,1\nx,1\ny,1\nz,1\n");
        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertJson(['draft' => ['key' => []]]);

        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJson([
            'keys' => ['advised' => [['columns' => [['source' => 'name', 'target' => 'name']], 'meets' => 1, 'oneToOne' => 1]]],
            'meeting' => null,
        ]);
        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertJson(['draft' => ['key' => []]]);
    }

    public function test_a_key_that_lost_its_zeros_is_still_the_key(): void
    {
        $rows = static fn(string $form): string => implode('', array_map(
            static fn(int $row): string => sprintf("{$form},%d,%d\n", $row, 7 * $row % 1000, 3 * $row % 1000),
            range(1, 20),
        ));
        $this->deliver('source', "depot,fee,weight\n".$rows('%05d'));
        $this->deliver('target', "depot,fee,weight\n".$rows('%d'));

        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertJson(['draft' => ['key' => [['source' => 'depot']]]]);
        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJson([
            'keys' => ['advised' => [['columns' => [['source' => 'depot']], 'meets' => 0, 'couldMeet' => 20]]],
        ]);
    }
}
