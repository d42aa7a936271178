<?php

declare(strict_types=1);

namespace App\Adapters;

use App\Jobs\WorkOnRun;
use Illuminate\Database\Connection;
use NineTally\Core\Tally\Crew;
use NineTally\Core\Tally\TallyWork;

/**
 * Divides the pieces of a run among queue workers, on this machine or on others that share database and storage. Whoever leads
 * the run works too, so it ends even when nobody comes to help, and takes over the pieces of helpers who fell silent.
 */
final readonly class CrewOfJobs implements Crew
{
    private const SECONDS_BETWEEN_LOOKS = 0.5;

    private const PAUSE_MICROSECONDS = 50_000;

    public function __construct(private Connection $database, private RunLease $lease, private int $helpers, private int $leaseSeconds) {}

    public function perform(TallyWork $work, array $pieces, callable $onProgress, callable $onDone): void
    {
        if ($pieces === []) {
            return;
        }
        $runId = $this->lease->run()->id;
        $this->enter($runId, $pieces, $work);
        for ($helper = 0; $helper < min($this->helpers, count($pieces) - 1); $helper++) {
            WorkOnRun::dispatch($runId);
        }
        $waiting = array_fill_keys($pieces, true);
        $looked = microtime(true);
        while ($waiting !== []) {
            $piece = PieceLease::take($this->database, $runId, $this->leaseSeconds);
            if ($piece !== null) {
                PieceOfWork::perform($work, $piece, static fn(int $bytes, int $records) => $onProgress($piece->name, $bytes, $records));
                unset($waiting[$piece->name]);
                $onDone($piece->name);
            }
            if ($piece === null || microtime(true) - $looked > self::SECONDS_BETWEEN_LOOKS) {
                $this->lookAtOthers($runId, $waiting, $onProgress, $onDone);
                $looked = microtime(true);
            }
            if ($piece === null && $waiting !== []) {
                $this->lease->signOfLife();
                usleep(self::PAUSE_MICROSECONDS);
            }
        }
    }

    /** @param list<string> $pieces */
    private function enter(int $runId, array $pieces, TallyWork $work): void
    {
        foreach ($pieces as $name) {
            $isDone = $work->isDone($name);
            // What a worker did before it died is done; what it only entered is not.
            $this->database->statement(<<<'SQL'
                INSERT INTO run_pieces (run_id, name, done_at) VALUES (?, ?, CASE WHEN ? THEN now() END)
                ON CONFLICT (run_id, name) DO UPDATE SET done_at = CASE WHEN ? THEN coalesce(run_pieces.done_at, now()) END, worker = NULL, lease_expires_at = NULL
                SQL, [$runId, $name, $isDone, $isDone]);
        }
    }

    /**
     * @param  array<string, true>  $waiting  pieces that are not known to be done; those that are leave it
     * @param  callable(string, int, int): void  $onProgress
     * @param  callable(string): void  $onDone
     */
    private function lookAtOthers(int $runId, array &$waiting, callable $onProgress, callable $onDone): void
    {
        foreach ($this->database->table('run_pieces')->where('run_id', $runId)->orderBy('name')->get() as $found) {
            $piece = DatabaseRow::of($found);
            $name = $piece->text('name');
            if (! isset($waiting[$name])) {
                continue;
            }
            if ($piece->int('bytes_read') > 0) {
                $onProgress($name, $piece->int('bytes_read'), $piece->int('records_read'));
            }
            if ($piece->textOrNull('done_at') !== null) {
                unset($waiting[$name]);
                $onDone($name);
            }
        }
    }
}
