<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\Migration;
use App\Models\TrailAct;
use App\Models\TrailDetail;
use App\Models\TrailEntry;
use App\Models\User;
use Illuminate\Contracts\Debug\ExceptionHandler;
use Illuminate\Database\Connection;
use Illuminate\Http\Request;

/**
 * Writes down who did what, in the transaction of the act: an entry that cannot be written stops what it tells of. It is linked into the
 * chain as soon as that is committed; what could not be linked then is linked with the next entry.
 */
final readonly class Trail
{
    private const LONGEST = 500;

    public function __construct(
        private Request $request,
        private Connection $database,
        private TrailChain $chain,
        private ExceptionHandler $problems,
    ) {}

    /** @param string $about in words, without any value of a cell */
    public function note(TrailAct $act, ?User $person, string $about = '', ?Migration $migration = null): void
    {
        $detail = [
            'salt' => bin2hex(random_bytes(32)),
            'about' => mb_substr($about, 0, self::LONGEST),
            'address' => (string) $this->request->ip(),
        ];
        $this->database->transaction(function () use ($act, $person, $migration, $detail): void {
            $entry = TrailEntry::query()->create([
                'act' => $act,
                'user_id' => $person?->id,
                'migration_id' => $migration?->id,
                'detail_digest' => TrailDetail::digest($detail['salt'], $detail['about'], $detail['address']),
            ]);
            TrailDetail::query()->create(['entry_id' => $entry->id, ...$detail]);
        });
        $this->database->afterCommit(function (): void {
            try {
                $this->chain->link();
            } catch (\Throwable $problem) {
                $this->problems->report($problem);
            }
        });
    }
}
