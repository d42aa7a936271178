<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use Tests\TestCase;

final class PlanVersionsTest extends TestCase
{
    public function test_versions_say_what_changed_are_compared_and_gone_back_to(): void
    {
        $this->tallied();
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = [
            'key' => [[...$same('basin'), 'forgives' => ['case']], $same('berth')],
            'columnPairs' => [['kind' => 'number', 'forgives' => ['number-form'], ...$same('fee')]],
            'leftOut' => ['source' => ['holder'], 'target' => ['loaded', 'owner']],
            'sides' => ['source' => ['preparation' => [['id' => 's1', 'kind' => 'leave-out-blank-rows']]]],
        ];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $plan)->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        $changes = [
            'the key was basin + berth and is basin (forgives case) + berth',
            'holder is no longer compared with owner',
            'fee is read as number, no longer as text',
            'fee forgives number-form, and forgave nothing',
            'holder is left out of the source',
            'a step of the source is new: Leave out rows with nothing in any column',
            'owner is left out of the target',
        ];
        $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions")
            ->assertOk()
            ->assertJson([
                'versions' => [
                    ['number' => 2, 'by' => 'Ruth Osei', 'changes' => $changes, 'tallies' => [2]],
                    ['number' => 1, 'changes' => ['the first version'], 'tallies' => [1]],
                ],
            ]);
        $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions/1/against/2")
            ->assertOk()
            ->assertExactJson(['changes' => $changes]);
        $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions/2/against/2")->assertExactJson(['changes' => []]);

        $this->api('POST', "/datasets/{$this->dataset->id}/plan-imports", ['version' => 1])
            ->assertOk()
            ->assertJsonPath('draft.columnPairs.0.source', 'holder');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        // Going back makes a new version; what was used stays as it was.
        self::assertSame([1, 2, 3], $this->dataset->planVersions()->orderBy('number')->pluck('number')->all());
        $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions/9/against/1")->assertNotFound();
    }

    public function test_a_plan_goes_to_another_dataset_as_a_file_or_a_plan_to_start_from_and_says_what_does_not_fit(): void
    {
        $this->tallied();
        $file = (string) $this->get("/api/v1/datasets/{$this->dataset->id}/plan-versions/1")->assertOk()->getContent();
        $this->api('POST', "/datasets/{$this->dataset->id}/starting-plans", ['name' => 'Registers'])->assertCreated();
        $this->api('POST', "/datasets/{$this->dataset->id}/starting-plans", ['name' => 'Registers'])
            ->assertConflict()
            ->assertJson(['code' => 'name-taken']);
        $this->dataset = $this->migration->datasets()->create(['name' => 'Other']);
        $this->deliver('source', "basin,berth,holder,charge\nKB,1,x,2\n");
        $this->deliver('target', "basin,berth,owner,fee,loaded\nKB,1,x,2,t\n");

        foreach (
            [
                ['document' => $file],
                [
                    'startingPlan' => $this->number(
                        $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions")->assertJsonPath(
                            'startingPlans.0.name',
                            'Registers',
                        ),
                        'startingPlans.0.id',
                    ),
                ],
            ]
            as $from
        ) {
            $imported = $this->api('POST', "/datasets/{$this->dataset->id}/plan-imports", $from)->assertOk();
            $imported->assertJsonPath('problems.0.pointer', '/columnPairs/1/source');
            self::assertSame(['holder', 'fee'], array_column($this->objects($imported, 'draft.columnPairs'), 'source'));
        }
        $this->api('POST', "/datasets/{$this->dataset->id}/plan-imports", ['document' => '{"key": []}'])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unusable-plan']);
        $this->actingAs($this->owner)
            ->api('POST', "/datasets/{$this->dataset->id}/plan-imports", ['document' => $file])
            ->assertForbidden();
    }
}
