<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use App\Models\Dataset;
use Tests\TestCase;

/** What was said of both systems for one dataset, the next begins with. */
final class PlanDefaultsTest extends TestCase
{
    public function test_a_new_dataset_begins_with_how_both_sides_were_said_to_write_their_values(): void
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', "berth,fee,since\n1,1.5,2024-01-31\n2,2.5,2024-02-01\n");
        $this->deliver('target', "berth,fee,since\n1,\"1,5\",31.01.2024\n2,\"2,5\",01.02.2024\n");
        /** @var array<string, mixed> $plan */
        $plan = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->json('draft');
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan-defaults")
            ->assertConflict()
            ->assertJson(['code' => 'nothing-to-begin-with']);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...$plan,
            'sides' => [
                'target' => [
                    'columns' => ['fee' => ['decimalMark' => ','], 'since' => ['dateForms' => ['dd.MM.yyyy'], 'blankTokens' => ['-']]],
                ],
            ],
            'defaults' => ['forgives' => ['case']],
        ])->assertOk();
        $kept = $this->api('PUT', "/datasets/{$this->dataset->id}/plan-defaults")->assertOk();
        self::assertContains('New register: decimals begin with a comma', (array) $kept->json('defaults'));

        $this->dataset = Dataset::query()->create(['migration_id' => $this->dataset->migration_id, 'name' => 'Sluices']);
        $this->deliver('source', "lock,width\n1,4\n2,5\n");
        $this->deliver('target', "lock,width\n1,\"4,0\"\n2,\"5,0\"\n");
        $draft = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertOk();
        self::assertEquals(
            ['target' => ['decimalMark' => ',', 'dateForms' => ['dd.MM.yyyy'], 'blankTokens' => ['-']]],
            $draft->json('draft.sides'),
        );
        self::assertSame(['forgives' => ['case']], $draft->json('draft.defaults'));
        // What is declared is not asked again: only the kind is.
        $this->api('GET', "/datasets/{$this->dataset->id}/advice")->assertJson([
            'forms' => ['forms' => [['source' => 'width', 'kind' => 'number', 'ways' => [['source' => [], 'target' => [], 'agree' => 2]]]]],
        ]);

        $this->api('DELETE', "/datasets/{$this->dataset->id}/plan-defaults")->assertOk()->assertJson(['defaults' => []]);
        $this->actingAs($this->owner)->api('PUT', "/datasets/{$this->dataset->id}/plan-defaults")->assertForbidden();
    }
}
