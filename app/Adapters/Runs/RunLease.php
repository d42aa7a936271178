<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use App\Models\Run;
use App\Models\RunState;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\Phase;
use NineTally\Core\Tally\Progress;
use NineTally\Core\Tally\ProgressReport;
use NineTally\Core\Tally\TallyCancelled;

/**
 * A worker's hold on a run: with each sign of life it lasts a little longer, and a worker that lost it is told so.
 *
 * Progress of the engine goes this way, so that one statement a second renews the lease, shows the progress and sees the wish to cancel.
 */
final class RunLease implements Progress
{
    private const SECONDS_BETWEEN_SIGNS = 1.0;

    private const SHARE_PREPARING = 0.05;

    private float $lastSign = 0.0;

    private ?Phase $phase = null;

    private function __construct(private readonly Run $run, private readonly string $token, private readonly int $seconds) {}

    /** @return self|null null when the run is over, or another worker holds it */
    public static function take(int $runId, int $seconds): ?self
    {
        $token = (string) Str::uuid();
        $taken = Run::query()->whereKey($runId)->whereIn('state', RunState::goingOn())
            ->where(static fn($query) => $query->whereNull('lease')->orWhere('lease_expires_at', '<', now()))
            ->update([
                'lease' => $token,
                'lease_expires_at' => now()->addSeconds($seconds),
                'attempts' => DB::raw('attempts + 1'),
                'state' => RunState::Reading->value,
                'started_at' => DB::raw('coalesce(started_at, now())'),
            ]);

        return $taken === 1 ? new self(Run::query()->findOrFail($runId), $token, $seconds) : null;
    }

    public function run(): Run
    {
        return $this->run;
    }

    public function report(ProgressReport $report): void
    {
        if ($report->phase !== $this->phase || microtime(true) - $this->lastSign >= self::SECONDS_BETWEEN_SIGNS) {
            $this->phase = $report->phase;
            $this->sign(RunState::from($report->phase->value), $report->done, [
                'sourceRows' => $report->rows['source'],
                'targetRows' => $report->rows['target'],
                'slicesMatched' => $report->partitionsMatched,
                'slices' => $report->partitions,
                'agreed' => $report->agreed,
                'changed' => $report->changed,
            ]);
        }
    }

    /**
     * @param  array<string, int>|null  $figures  null keeps those that were shown last
     *
     * @throws TallyCancelled
     * @throws LeaseLost
     */
    public function sign(RunState $state, float $done, ?array $figures = null): void
    {
        $this->lastSign = microtime(true);
        $renewed = Run::query()->whereKey($this->run->id)->where('lease', $this->token)->update(array_filter([
            'state' => $state->value,
            'done' => $done,
            'figures' => $figures === null ? null : json_encode($figures, JSON_THROW_ON_ERROR),
            'lease_expires_at' => now()->addSeconds($this->seconds),
        ], static fn(mixed $value): bool => $value !== null));
        if ($renewed !== 1) {
            throw LeaseLost::ofRun($this->run->id);
        }
        if (Run::query()->whereKey($this->run->id)->value('cancel_requested_at') !== null) {
            throw TallyCancelled::byPerson();
        }
    }

    /**
     * While steps run, before anything is compared.
     *
     * @param  float  $done  of the side
     *
     * @throws TallyCancelled
     * @throws LeaseLost
     */
    public function preparing(Side $side, float $done, int $records): void
    {
        if (microtime(true) - $this->lastSign >= self::SECONDS_BETWEEN_SIGNS) {
            $this->sign(RunState::Reading, self::SHARE_PREPARING * ($side === Side::Source ? $done / 2 : (1 + $done) / 2), [
                $side === Side::Source ? 'sourceRows' : 'targetRows' => $records,
            ]);
        }
    }

    /** While others work and there is nothing new to show. */
    public function heartbeat(): void
    {
        if (microtime(true) - $this->lastSign >= self::SECONDS_BETWEEN_SIGNS) {
            $this->sign(RunState::from(($this->phase ?? Phase::Reading)->value), $this->run->refresh()->done);
        }
    }

    /** Inside a transaction: holds the run until it commits, or finds that it is lost. */
    public function mustStillHold(): Run
    {
        $run = Run::query()
            ->lockForUpdate()
            ->whereKey($this->run->id)
            ->where('lease', $this->token)
            ->whereIn('state', RunState::goingOn())
            ->first();

        return $run ?? throw LeaseLost::ofRun($this->run->id);
    }

    /** Ends the run without a result, if it is still held. */
    public function end(RunState $state, ?string $problem): void
    {
        Run::query()
            ->whereKey($this->run->id)
            ->where('lease', $this->token)
            ->whereIn('state', RunState::goingOn())
            ->update(['state' => $state->value, 'problem' => $problem, 'finished_at' => now()]);
    }
}
