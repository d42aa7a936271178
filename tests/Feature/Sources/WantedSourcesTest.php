<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Actions\Sources\AdvanceDraws;
use App\Models\Dataset;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\SourceConnection;
use NineTally\Core\Row\Side;
use Tests\TestCase;

/** A plan that says where its rows are drawn from, in the hands of somebody with connections of other names. */
final class WantedSourcesTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        is_dir(storage_path('sources')) || mkdir(storage_path('sources'));
        $file = storage_path('sources/wanted.sqlite');
        @unlink($file);
        (new \PDO("sqlite:{$file}", options: [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]))->exec(
            'CREATE TABLE old (berth TEXT, fee TEXT); CREATE TABLE new (berth TEXT, fee TEXT); '.
                "INSERT INTO old VALUES ('1', '5'), ('2', '6'); INSERT INTO new VALUES ('1', '5'), ('2', '7')",
        );
        $this->actingAs($this->analyst);
        $this->connect('Old register');
        foreach (['source' => 'old', 'target' => 'new'] as $side => $table) {
            $asked = [
                'side' => $side,
                'source' => 'Old register',
                'sql' => "SELECT * FROM {$table} WHERE berth < :most",
                'values' => ['most' => '3'],
            ];
            $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", $asked)->json('id');
            $this->takeParts($side, is_string($id) ? $id : '')->assertAccepted();
        }
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('berth')],
            'columnPairs' => [$same('fee')],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
    }

    public function test_it_asks_for_what_is_not_here_shows_both_sides_and_is_drawn_when_that_is_right(): void
    {
        $plain = (string) $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions/1")->content();
        self::assertStringNotContainsString('Old register', $plain, 'A version as it is says nothing of it.');
        $plan = (string) $this->api('GET', "/datasets/{$this->dataset->id}/plan-versions/1?sources=1")->content();
        SourceConnection::query()->delete();
        $this->connect('Our copy');

        $this->dataset = $this->migration->datasets()->create(['name' => 'Moorings again']);
        $at = "/datasets/{$this->dataset->id}";
        $this->api('POST', "{$at}/plan-imports", ['document' => $plan])->assertOk();
        $this->api('GET', "{$at}/wanted-sources")->assertJson(['wanted' => ['connections' => [
            ['side' => 'source', 'name' => 'Old register', 'isHere' => false, 'fits' => ['Our copy']],
            ['side' => 'target', 'name' => 'Old register', 'isHere' => false, 'fits' => ['Our copy']],
        ]]]);
        self::assertStringContainsString(
            'no connection of this name',
            (string) $this->api('POST', "{$at}/wanted-sources/trials", [])->assertOk()->content(),
        );
        $chosen = ['chosen' => [
            ['side' => 'source', 'name' => 'Old register', 'by' => 'Our copy'],
            ['side' => 'target', 'name' => 'Old register', 'by' => 'Our copy'],
        ]];
        $this->api('POST', "{$at}/wanted-sources/trials", $chosen)->assertExactJson([
            'sides' => [
                'source' => ['columns' => ['berth', 'fee'], 'rows' => [['1', '5'], ['2', '6']], 'problem' => null],
                'target' => ['columns' => ['berth', 'fee'], 'rows' => [['1', '5'], ['2', '7']], 'problem' => null],
            ],
            'pairs' => [
                ['source' => 'berth', 'target' => 'berth', 'isKey' => true, 'isThere' => true],
                ['source' => 'fee', 'target' => 'fee', 'isKey' => false, 'isThere' => true],
            ],
        ]);
        self::assertNull($this->dataset->latestDelivery(Side::Source), 'A look delivers nothing.');
        $elsewhere = ['chosen' => [['side' => 'source', 'name' => 'Old register', 'by' => 'Elsewhere']]];
        $this->api('POST', "{$at}/wanted-sources/draws", $elsewhere)->assertUnprocessable();

        $this->api('POST', "{$at}/wanted-sources/draws", $chosen)->assertAccepted();
        foreach (range(1, 4) as $_) {
            app(AdvanceDraws::class)();
        }
        $draw = Draw::query()->where('dataset_id', $this->dataset->id)->sole();
        self::assertSame(DrawState::Done, $draw->state, implode("\n", array_column($draw->log, 'said')));
        self::assertSame(1, Dataset::query()->findOrFail($this->dataset->id)->latestTally()?->summary['rows']['source']['changed'] ?? null);
        $this->api('GET', "{$at}/wanted-sources")->assertExactJson(['wanted' => null]);
    }

    private function connect(string $label): void
    {
        SourceConnection::query()->create([
            'migration_id' => $this->migration->id, 'label' => $label, 'kind' => 'sqlite', 'settings' => ['file' => 'wanted.sqlite'],
            'user_id' => $this->analyst->id,
        ]);
    }
}
