<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Rows that share values, looked at by whoever may see them; masked where they may not. */
final class RepeatLookTest extends TestCase
{
    private const TWICE = "basin,berth,fee,loaded\nKB,1,10,mon\nKB,1,10,tue\nkb,1,12,mon\nLM,2,5,mon\nLM,3,5,mon\n";

    private const ONCE = "basin,berth,fee\nKB,1,10\nLM,2,5\nLM,2,6\nQQ,9,1\n";

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::TWICE);
        $this->deliver('target', self::ONCE);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'fee', 'target' => 'fee']],
            'leftOut' => ['source' => ['loaded'], 'target' => []],
        ])->assertOk();
    }

    public function test_rows_of_the_key_are_looked_at_both_sides_next_to_each_other(): void
    {
        $look = $this->look(['except' => ['source' => ['loaded']]]);

        $look->assertJson([
            'isWaiting' => false,
            'chosen' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'found' => [
                'figures' => [
                    'source' => ['rows' => 5, 'combinations' => 4, 'groups' => 1, 'copies' => 1, 'conflicts' => 0],
                    'target' => ['rows' => 4, 'combinations' => 3, 'groups' => 1, 'copies' => 0, 'conflicts' => 1],
                ],
                'patterns' => [
                    ['side' => 'source', 'columns' => ['loaded'], 'groups' => 1, 'rows' => 2, 'beyondFirst' => 1],
                    ['side' => 'target', 'columns' => ['fee'], 'groups' => 1, 'rows' => 2, 'beyondFirst' => 1],
                ],
                'orders' => ['oneSide' => []],
            ],
        ]);
        self::assertSame(
            [2, 3],
            array_column($this->objects($look, "found.groups.{$this->number($look, 'found.orders.size.0')}.source.rows"), 'line'),
        );
        $this->look(['stake' => 'fee'])->assertJson(['stake' => ['source' => 'fee'], 'found' => ['stakes' => [
            'source' => ['all' => '42', 'beyondFirst' => '10', 'without' => '32'],
            'target' => ['all' => '22', 'beyondFirst' => '6', 'without' => '16'],
        ]]]);
        // On other columns, whatever their form.
        $this->look(['columns' => ['basin', 'fee'], 'forgives' => ['case']])->assertJson([
            'found' => [
                'figures' => [
                    'source' => ['groups' => 2, 'inGroups' => 4, 'byForm' => 0],
                ],
            ],
        ]);
        $this->look(['columns' => ['basin'], 'forgives' => ['case']])->assertJson([
            'found' => ['figures' => ['source' => ['byForm' => 1]]],
        ]);
    }

    public function test_who_sees_no_values_puts_no_rows_together_by_them_and_is_shown_none(): void
    {
        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sensitive' => ['source' => ['fee'], 'target' => ['fee']]] + $draft->document]);

        $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", ['columns' => ['fee']])->assertForbidden();
        $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", ['stake' => 'fee'])->assertForbidden();
        $look = (string) $this->look([])->getContent();
        self::assertStringContainsString('"differing":["fee"]', $look);
        self::assertStringNotContainsString('"LM","2","6"', $look);
    }

    /**
     * @param  array<string, mixed>  $asked
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function look(array $asked): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", $asked)->assertOk();
    }
}
