<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

use Tests\TestCase;

/** What a step is told to begin with: where records are found, and what values are on the other side. */
final class ProposalsTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_a_look_up_is_told_its_reference_its_columns_and_what_keeps_records_apart(): void
    {
        $this->reference('Basins', "code,title\nKB,Kelp Basin\nLM,Long Mooring\n");
        $this->reference('Fees', "rate,since\n12.5,2020-01-01\n13,2021-01-01\n");
        $this->deliver('source', "berth,basin,state\n1,KB,open\n2,kb,open\n3,LM ,shut\n4,LM,open\n5,,open\n");

        $asked = ['side' => 'source', 'chosen' => 'later', 'preparation' => [
            ['id' => 'trimmed', 'kind' => 'rename-columns', 'names' => [['from' => 'basin', 'to' => 'basin code']]],
            ['id' => 'later', 'kind' => 'look-up', 'off' => true, 'reference' => '?', 'on' => [['column' => 'berth', 'reference' => '?']],
                'take' => [['reference' => '?', 'into' => 'x']]],
        ]];
        $this->api('POST', "/datasets/{$this->dataset->id}/look-up-proposals", $asked)->assertOk()->assertExactJson(['items' => [[
            'reference' => 'Basins',
            'on' => [['column' => 'basin code', 'reference' => 'code']],
            'columns' => ['title'],
            'rows' => 5,
            'found' => 2,
            'several' => 0,
            'rungs' => [
                ['causes' => ['spacing'], 'brings' => 1, 'several' => 0, 'left' => 1],
                ['causes' => ['case'], 'brings' => 1, 'several' => 0, 'left' => 1],
                ['causes' => ['spacing', 'case'], 'brings' => 2, 'several' => 0, 'left' => 0],
            ],
        ]]]);
    }

    public function test_a_crosswalk_begins_with_the_values_of_both_sides_and_with_none_that_is_masked(): void
    {
        $this->deliver('source', "basin,berth,month,fee\nKB,1,Jan,1\nKB,2,Febr.,2\nKB,3,Mar,3\nKB,4,all,4\n");
        $this->deliver('target', "basin,berth,mth,fee\nKB,1,1,1\nKB,2,2,2\nKB,3,3,3\nKB,4,all,4\n");
        $this->match([['source' => 'month', 'target' => 'mth'], ['source' => 'fee', 'target' => 'fee']]);
        $asked = ['side' => 'source', 'chosen' => null, 'column' => 'month', 'preparation' => []];
        $propose = fn() => $this->api('POST', "/datasets/{$this->dataset->id}/crosswalk-proposals", $asked)->assertOk();

        $propose()->assertExactJson(['values' => 4, 'others' => 4, 'same' => 1, 'other' => 'mth', 'isMasked' => false, 'entries' => [
            ['source' => 'Febr.', 'target' => '2'], ['source' => 'Jan', 'target' => '1'], ['source' => 'Mar', 'target' => '3'],
            ['source' => 'all', 'target' => 'all'],
        ]]);
        $this->masks();
        $propose()->assertExactJson(['entries' => [], 'values' => 0, 'others' => 0, 'same' => 0, 'isMasked' => true, 'other' => 'mth']);
    }

    private function masks(): void
    {
        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sensitive' => ['source' => [], 'target' => ['mth']]] + $draft->document]);
    }

    private function reference(string $name, string $content): void
    {
        $dataset = $this->dataset;
        $this->dataset = $this->migration->datasets()->create(['name' => $name]);
        $this->deliver('source', $content);
        $this->dataset = $dataset;
    }
}
