<?php

declare(strict_types=1);

namespace Tests\Feature\Sources;

use App\Actions\Sources\AdvanceDraws;
use App\Actions\Sources\BeginDraws;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\Receipt;
use App\Models\ReceiptState;
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
        $this->plan([]);
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
                'Written down: the source 2 rows, the target 2 rows. Both sides were asked within one second.',
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

    public function test_sides_that_were_asked_too_far_apart_are_not_delivered(): void
    {
        CarbonImmutable::setTestNow('2026-11-30 05:30:00');
        $this->schedule('0 6 * * *', more: ['mostApart' => 30])->assertJsonPath('schedule.mostApart', 30);
        $this->database("UPDATE new SET fee = '7'");
        CarbonImmutable::setTestNow('2026-11-30 06:00:10');
        app(BeginDraws::class)(CarbonImmutable::now());
        // A worker came to the target a minute later.
        $target = Receipt::query()->where('side', 'target')->latest('id')->firstOrFail();
        $target->update(['query' => ['at' => '2026-11-30T06:01:20.000Z'] + ($target->query ?? [])]);
        $this->look();
        self::assertSame(DrawState::Failed, Draw::query()->sole()->state);
        self::assertStringContainsString('asked 70 seconds apart, and 30 is the most', $this->said(Draw::query()->sole()));
        self::assertSame([1, 1, 2], [$this->deliveries('source'), $this->deliveries('target'), Receipt::query()->count()]);
    }

    public function test_what_people_bring_is_tallied_when_both_sides_have_arrived(): void
    {
        // What a tally has seen has not arrived anew.
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->schedule('', more: ['onArrival' => true, 'expression' => null])->assertOk()->assertJsonPath('schedule.next', []);
        CarbonImmutable::setTestNow(CarbonImmutable::now()->addMinute());
        $this->deliver('source', "berth,fee\n1,2\n");
        $this->look();
        self::assertSame(0, Draw::query()->count(), 'One side alone.');
        CarbonImmutable::setTestNow(CarbonImmutable::now()->addMinute());
        $this->deliver('target', "berth,fee\n1,3\n");
        $this->look();
        $draw = Draw::query()->sole();
        self::assertSame([DrawState::Done, 2], [$draw->state, $this->dataset->latestTally()?->targetDelivery->number]);
        self::assertStringContainsString('Both sides have arrived: ', $this->said($draw));
        $this->look();
        self::assertSame(1, Draw::query()->count(), 'Once.');
    }

    public function test_of_a_migration_what_is_looked_up_is_delivered_before_others_are_tallied(): void
    {
        $this->database("CREATE TABLE basins (code TEXT, name TEXT); INSERT INTO basins VALUES ('1', 'North'), ('2', 'South')");
        $basins = $this->api('POST', "/migrations/{$this->migration->id}/datasets", ['name' => 'Basins'])->assertCreated()->json('id');
        self::assertIsInt($basins);
        $asked = ['side' => 'source', 'source' => 'Both', 'table' => ['name' => 'basins']];
        $id = $this->api('POST', "/datasets/{$basins}/snapshots", $asked)->json('id');
        $delivery = ['side' => 'source', 'parts' => [['receipt' => $id]]];
        $this->api('POST', "/datasets/{$basins}/deliveries", $delivery)->assertAccepted();
        $this->plan(['source' => ['preparation' => [[
            'id' => 'x', 'kind' => 'look-up', 'reference' => 'Basins', 'on' => [['column' => 'berth', 'reference' => 'code']],
            'take' => [['reference' => 'name', 'into' => 'basin']],
        ]]]]);

        $this->api('PUT', "/migrations/{$this->migration->id}/schedule", ['expression' => '0 6 * * *', 'zone' => 'UTC', 'isOn' => true])
            ->assertOk()
            ->assertJsonPath('draws.*.name', ['Basins', 'Moorings']);
        self::assertSame(2, Schedule::query()->count());
        $this->api('POST', "/migrations/{$this->migration->id}/draws")->assertAccepted()->assertJsonPath('notDrawn', []);
        // The basins are still being written down.
        $receipt = Receipt::query()->where('dataset_id', $basins)->latest('id')->firstOrFail();
        $receipt->update(['state' => ReceiptState::Receiving]);
        $this->look();
        self::assertSame(DrawState::Waiting, $this->drawOf($this->dataset->id)->state);
        self::assertStringContainsString('First comes Basins', $this->said($this->drawOf($this->dataset->id)));
        $receipt->update(['state' => ReceiptState::Received]);
        $this->look();
        $states = [$this->drawOf($basins)->state, $this->drawOf($this->dataset->id)->state];
        self::assertSame([DrawState::Done, DrawState::Done], $states, $this->said($this->drawOf($this->dataset->id)));
        self::assertStringContainsString('Others look it up', $this->said($this->drawOf($basins)));
    }

    public function test_times_and_files_that_cannot_be_are_refused_in_words(): void
    {
        $this->schedule('every monday')->assertUnprocessable()->assertSee('five fields');
        $this->schedule('0 6 * * 1', 'Wherrymoor')->assertUnprocessable();
        $this->deliver('source', "berth,fee\n1,2\n");
        $this->deliver('target', "berth,fee\n1,2\n");
        $this->api('POST', "/datasets/{$this->dataset->id}/draws")->assertConflict()->assertSee('Neither side was drawn from a source');
        $this->actingAs($this->owner);
        $this->schedule('0 6 * * 1')->assertForbidden();
    }

    /** @param array<string, mixed> $sides */
    private function plan(array $sides): void
    {
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'fee', 'target' => 'fee']],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => (object) $sides,
        ])->assertOk();
    }

    private function drawOf(int $dataset): Draw
    {
        return Draw::query()->where('dataset_id', $dataset)->latest('id')->firstOrFail();
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

    /**
     * @param  array<string, mixed>  $more
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function schedule(string $expression, string $zone = 'UTC', array $more = []): \Illuminate\Testing\TestResponse
    {
        return $this->api(
            'PUT',
            "/datasets/{$this->dataset->id}/schedule",
            $more + ['expression' => $expression, 'zone' => $zone, 'isOn' => true],
        );
    }
}
