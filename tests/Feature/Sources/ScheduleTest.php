<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Actions\Sources\AdvanceDraws;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\Receipt;
use App\Models\Schedule;
use App\Models\SourceConnection;
use Carbon\CarbonImmutable;
use Tests\TestCase;

/** Both sides drawn and tallied by themselves, at the times of a schedule. */
final class ScheduleTest extends TestCase
{
    private string $file;

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $folder = storage_path('sources');
        is_dir($folder) || mkdir($folder);
        $this->file = "{$folder}/both.sqlite";
        @unlink($this->file);
        $this->database(
            'CREATE TABLE old (berth TEXT, fee TEXT); CREATE TABLE new (berth TEXT, fee TEXT); '.
                "INSERT INTO old VALUES ('1', '5'), ('2', '6'); ".
                "INSERT INTO new VALUES ('1', '5'), ('2', '6')",
        );
        SourceConnection::query()->create([
            'migration_id' => $this->migration->id, 'label' => 'Both', 'kind' => 'sqlite', 'settings' => ['file' => 'both.sqlite'],
            'user_id' => $this->analyst->id,
        ]);
        foreach (['source' => 'old', 'target' => 'new'] as $side => $table) {
            $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", [
                'side' => $side,
                'source' => 'Both',
                'table' => ['name' => $table],
            ])->json('id');
            self::assertIsString($id);
            $this->takeParts($side, $id)->assertAccepted();
        }
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'fee', 'target' => 'fee']],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
    }

    protected function tearDown(): void
    {
        CarbonImmutable::setTestNow();
        parent::tearDown();
    }

    public function test_at_its_time_both_sides_are_drawn_and_tallied_and_missed_times_are_made_up_once(): void
    {
        CarbonImmutable::setTestNow('2026-11-30 05:30:00');
        $this->schedule('0 6 * * 1-5')
            ->assertOk()
            ->assertJson([
                'schedule' => [
                    'next' => [
                        '2026-11-30T06:00:00Z',
                        '2026-12-01T06:00:00Z',
                        '2026-12-02T06:00:00Z',
                        '2026-12-03T06:00:00Z',
                        '2026-12-04T06:00:00Z',
                    ],
                ],
                'draws' => [['side' => 'source', 'sources' => ['Both']], ['side' => 'target', 'sources' => ['Both']]],
            ]);
        $this->look();
        self::assertSame(0, Draw::query()->count(), 'It is not time.');

        $this->database("UPDATE new SET fee = '7' WHERE berth = '2'");
        CarbonImmutable::setTestNow('2026-12-02 09:00:00');
        $this->look();
        $draw = Draw::query()->sole();
        self::assertSame([DrawState::Done, '2026-12-02T06:00:00Z'], [$draw->state, $draw->due_at?->toIso8601ZuluString()]);
        self::assertSame(
            [
                'Asked: the source from Both; the target from Both.',
                'Written down: the source 2 rows, the target 2 rows. Both sides were asked in the same second.',
                'Delivered, and being tallied.',
                'Tally 1: 1 finding open.',
            ],
            array_column($draw->log, 'said'),
        );
        $tally = $this->dataset->latestTally();
        self::assertSame([2, 2], [$tally?->sourceDelivery->number, $tally?->targetDelivery->number]);
        self::assertNotNull($tally?->sourceDelivery->as_of);

        $this->look();
        self::assertSame(1, Draw::query()->count(), 'Once.');
        $this->api('GET', "/migrations/{$this->migration->id}/schedule")->assertJson([
            'next' => [['dataset' => ['name' => 'Moorings'], 'at' => '2026-12-03T06:00:00Z']],
            'past' => [['state' => 'done', 'by' => 'Ruth Osei']],
        ]);
    }

    public function test_what_has_not_changed_is_not_delivered_again(): void
    {
        CarbonImmutable::setTestNow('2026-11-30 05:30:00');
        $this->schedule('0 6 * * *')->assertOk();
        foreach (['2026-11-30 06:00:10', '2026-12-01 06:00:10'] as $now) {
            CarbonImmutable::setTestNow($now);
            $this->look();
        }
        self::assertSame([DrawState::Done, DrawState::Done], Draw::query()->pluck('state')->all());
        self::assertStringContainsString('Nothing has changed', $this->said(Draw::query()->latest('id')->firstOrFail()));
        self::assertSame([1, 1], [$this->deliveries('source'), $this->deliveries('target')]);
        self::assertSame(2, Receipt::query()->count(), 'Nothing is left of what was drawn in vain.');
        $this->api('GET', "/migrations/{$this->migration->id}/schedule")->assertJsonCount(1, 'past');
    }

    public function test_what_goes_wrong_is_said_and_delivers_nothing(): void
    {
        $this->database('DROP TABLE new');
        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertAccepted();
        $this->look();
        self::assertSame(DrawState::Failed, Draw::query()->sole()->state);
        self::assertStringContainsString('no such table: new', $this->said(Draw::query()->sole()));
        $this->api('GET', '/notices')->assertJson(['items' => [['kind' => 'draw-failed', 'dataset' => 'Moorings']]]);
        self::assertSame([1, 1], [$this->deliveries('source'), $this->deliveries('target')], 'Not one side alone.');

        // A column that the key needs is gone: what was drawn is a delivery, and why it is not tallied is said.
        $this->database("CREATE TABLE new (number TEXT, fee TEXT); INSERT INTO new VALUES ('1', '5')");
        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertAccepted();
        $this->look();
        self::assertStringContainsString('berth', $this->said(Draw::query()->latest('id')->firstOrFail()));
        self::assertSame(2, $this->deliveries('target'));
    }

    public function test_in_the_name_of_who_may_not_deliver_any_more_nothing_is_drawn(): void
    {
        CarbonImmutable::setTestNow('2026-11-30 05:30:00');
        $this->schedule('0 6 * * *')->assertOk();
        $this->migration->memberships()->where('user_id', $this->analyst->id)->delete();
        CarbonImmutable::setTestNow('2026-11-30 06:00:10');
        $this->look();
        self::assertSame(DrawState::Failed, Draw::query()->sole()->state);
        self::assertStringContainsString('Ruth Osei kept this schedule, and may not deliver here', $this->said(Draw::query()->sole()));
    }

    public function test_one_is_drawn_at_a_time_and_what_was_killed_goes_on(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertAccepted()->assertJson(['past' => [['state' => 'drawing']]]);
        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertConflict()->assertSee('being drawn already');
        $this->schedule('* * * * *')->assertOk();
        Schedule::query()->update(['considered_at' => now()->subHour()]);
        $this->look();
        self::assertSame([DrawState::Done, DrawState::Refused], Draw::query()->orderBy('id')->pluck('state')->all());
        self::assertStringContainsString('still going on', $this->said(Draw::query()->latest('id')->firstOrFail()));

        // Whoever looked died after one of the sides was taken.
        Draw::query()->where('state', 'done')->update(['state' => 'drawing']);
        $this->look();
        self::assertSame(2, $this->deliveries('source'));
    }

    public function test_times_and_files_that_cannot_be_are_refused_in_words(): void
    {
        $this->schedule('every monday')->assertUnprocessable()->assertSee('five fields');
        $this->schedule('0 6 * * 1', 'Wherrymoor')->assertUnprocessable();
        $this->deliver('source', "berth,fee\n1,2\n");
        $this->deliver('target', "berth,fee\n1,2\n");
        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertConflict()->assertSee('Neither side was drawn from a database');
        $this->actingAs($this->owner);
        $this->schedule('0 6 * * 1')->assertForbidden();
    }

    private function look(): void
    {
        foreach (range(1, 4) as $_) {
            app(AdvanceDraws::class)();
        }
    }

    private function said(Draw $draw): string
    {
        return implode("\n", array_column($draw->log, 'said'));
    }

    private function deliveries(string $side): int
    {
        return $this->dataset->deliveries()->where('side', $side)->count();
    }

    private function database(string $statements): void
    {
        (new \PDO("sqlite:{$this->file}", options: [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION]))->exec($statements);
    }

    /** @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function schedule(string $expression, string $zone = 'UTC'): \Illuminate\Testing\TestResponse
    {
        return $this->api('PUT', "/datasets/{$this->dataset->id}/schedule", ['expression' => $expression, 'zone' => $zone, 'isOn' => true]);
    }
}
