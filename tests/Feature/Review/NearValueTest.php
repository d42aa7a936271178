<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Values that may mean the same: confirmed, they are a crosswalk of the plan, and the next tally takes them so. */
final class NearValueTest extends TestCase
{
    private const BEFORE = "basin,berth,holder\nKestrel Broad,1,Ilse Fenwright\nKestrel Broda,2,I. Fenwright\nKESTREL BROAD,3,Tove Amsel \n"
        ."Lime Mere,4,\nQuarry Hole,5,Nobody\n";

    private const AFTER = "basin,berth,holder\nKestrel Broad,1,Ilse Fenwright\nKestrel Broad,2,Ilse Fenwright\nKestrel Broad,3,Tove Amsel\n"
        ."Lime Mere,4,Ezekiel Thorn\n";

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::BEFORE);
        $this->deliver('target', self::AFTER);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'holder', 'target' => 'holder']],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
    }

    public function test_of_a_column_of_the_key_they_are_a_step_of_the_source(): void
    {
        $look = $this->look([]);
        $look->assertJson([
            'pair' => ['source' => 'basin', 'isOfKey' => true],
            'entries' => [],
            'found' => [
                'all' => ['source' => 5, 'target' => 2],
                'same' => 2,
                'alone' => 1,
                'values' => [
                    [
                        'value' => 'KESTREL BROAD',
                        'rows' => 1,
                        'candidates' => [['value' => 'Kestrel Broad', 'rows' => 3, 'reason' => 'differs in form alone']],
                    ],
                    ['value' => 'Kestrel Broda', 'candidates' => [['reason' => 'basin differs by one character']]],
                ],
            ],
        ]);
        $entries = array_map(
            static fn(string $value): array => ['source' => $value, 'target' => 'Kestrel Broad'],
            ['KESTREL BROAD', 'Kestrel Broda'],
        );
        $this->rule('basin', $entries, 'confirmed', 1)->assertJson(['draft' => 2]);
        $this->rule('basin', $entries, 'confirmed', 1)->assertStatus(412);
        $this->look(['column' => 'basin'])
            ->assertJson(['entries' => $entries, 'found' => ['all' => ['source' => 3], 'same' => 2, 'values' => []]]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame(1, $this->dataset->latestTally()?->summary['rows']['source']['missing'] ?? null);

        $this->rule('basin', [$entries[1]], 'open', 2)->assertJson(['draft' => 3]);
        $this->look(['column' => 'basin'])
            ->assertJson(['entries' => [$entries[0]], 'found' => ['values' => [['value' => 'Kestrel Broda']]]]);
        $this->rule('basin', [$entries[0]], 'open', 3)->assertOk();
        self::assertSame([], data_get($this->dataset->draft()->firstOrFail()->document, 'sides.source.preparation', []));
    }

    public function test_held_against_a_reference_they_are_a_step_before_the_look_up(): void
    {
        $berths = $this->dataset;
        $this->dataset = $this->migration->datasets()->create(['name' => 'Basins']);
        $this->deliver('source', "name,code\nKestrel Broad,KB\nLime Mere,LM\n", 'basins.csv');
        [$basins, $this->dataset] = [$this->dataset, $berths];
        $lookUp = [
            'id' => 'l', 'kind' => 'look-up', 'reference' => 'Basins', 'on' => [['column' => 'basin', 'reference' => 'name']],
            'take' => [['reference' => 'code', 'into' => 'code']],
        ];
        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sides' => ['source' => ['preparation' => [$lookUp]]]] + $draft->document]);
        $asked = ['column' => 'basin', 'reference' => ['name' => 'Basins', 'column' => 'name']];

        $this->look($asked)->assertJson([
            'pair' => ['source' => 'basin', 'target' => 'name', 'reference' => 'Basins'],
            'references' => [['name' => 'Basins', 'columns' => ['name', 'code']]],
            'found' => [
                'all' => ['source' => 5, 'target' => 2],
                'same' => 2,
                'values' => [['value' => 'KESTREL BROAD'], ['value' => 'Kestrel Broda']],
            ],
        ]);
        $entry = ['source' => 'Kestrel Broda', 'target' => 'Kestrel Broad'];
        $this->api('POST', "/datasets/{$this->dataset->id}/near-values/rulings", [
            ...$asked, 'entries' => [$entry], 'decision' => 'confirmed', 'seenDraft' => 1,
        ])->assertOk();
        /** @var list<array<string, mixed>> $steps */
        $steps = data_get($this->dataset->draft()->firstOrFail()->document, 'sides.source.preparation');
        self::assertSame(['crosswalk', 'look-up'], array_column($steps, 'kind'));
        $this->look($asked)->assertJson(['entries' => [$entry], 'found' => ['all' => ['source' => 5]]]);

        $basins->draft()->firstOrCreate([], ['document' => [
            'formatVersion' => 3, 'key' => [], 'columnPairs' => [], 'leftOut' => ['source' => [], 'target' => []],
            'sensitive' => ['source' => ['name'], 'target' => []],
        ]]);
        $this->api('POST', "/datasets/{$this->dataset->id}/near-values", $asked)->assertForbidden();
    }

    public function test_columns_that_must_be_equal_leave_out_those_that_have_nothing_in_common(): void
    {
        $this->look(['column' => 'holder', 'kind' => 'words', 'equal' => ['berth']])->assertJson(['found' => ['values' => [
            ['value' => 'I. Fenwright', 'candidates' => [['value' => 'Ilse Fenwright']]],
            ['value' => 'Tove Amsel '],
        ]]]);
        $this->deliver('target', str_replace("2,Ilse", "7,Ilse", self::AFTER));
        $this->look(['column' => 'holder', 'kind' => 'words', 'equal' => ['berth']])->assertJson(['found' => ['alone' => 2, 'values' => [
            ['value' => 'Tove Amsel '],
        ]]]);
    }

    public function test_what_stands_beside_the_values_counts_where_it_is_asked_to(): void
    {
        $this->deliver('target', str_replace('Ezekiel Thorn', 'Isolde Fenwright', self::AFTER));
        $alone = $this->look(['column' => 'holder', 'kind' => 'words']);
        $beside = $this->look(['column' => 'holder', 'kind' => 'words', 'alike' => ['basin']]);
        $beside->assertJson(['besides' => [['source' => 'basin'], ['source' => 'berth']], 'found' => [
            'alike' => [['source' => 'basin', 'target' => 'basin', 'kind' => 'words']],
            'values' => [[
                'value' => 'I. Fenwright',
                'beside' => ['Kestrel Broda'],
                'hasRival' => false,
                'candidates' => [['value' => 'Ilse Fenwright', 'beside' => ['Kestrel Broad']], ['value' => 'Isolde Fenwright']],
            ]],
        ]]);
        self::assertTrue($alone->json('found.values.0.hasRival'));
        $this->look(['column' => 'holder', 'alike' => ['nobody']])->assertJson(['found' => ['alike' => []]]);
    }

    public function test_of_a_pair_they_are_its_crosswalk_and_nobody_sees_masked_ones(): void
    {
        $this->look(['column' => 'holder', 'kind' => 'words'])->assertJson(['found' => ['kind' => 'words', 'values' => [
            ['value' => 'I. Fenwright', 'candidates' => [['value' => 'Ilse Fenwright', 'reason' => 'an initial in holder']]],
            ['value' => 'Tove Amsel ', 'candidates' => [['value' => 'Tove Amsel', 'reason' => 'differs in form alone']]],
        ]]]);
        $entry = ['source' => 'Tove Amsel ', 'target' => 'Tove Amsel'];
        $this->rule('holder', [$entry], 'confirmed', 1)->assertOk();
        self::assertSame([$entry], data_get($this->dataset->draft()->firstOrFail()->document, 'columnPairs.0.crosswalk'));

        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sensitive' => ['source' => ['holder'], 'target' => []]] + $draft->document]);
        $this->api('POST', "/datasets/{$this->dataset->id}/near-values", ['column' => 'holder'])->assertForbidden();
        $this->rule('nobody', [$entry], 'confirmed', 2)->assertConflict();
    }

    /**
     * @param  list<array{source: string, target: string}>  $entries
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function rule(string $column, array $entries, string $decision, int $seen): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/near-values/rulings", [
            'column' => $column, 'entries' => $entries, 'decision' => $decision, 'seenDraft' => $seen,
        ]);
    }

    /**
     * @param  array<string, mixed>  $asked
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function look(array $asked): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/near-values", $asked)->assertOk();
    }
}
