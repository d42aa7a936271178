<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\Migration;
use App\Models\TrailAct;
use App\Models\TrailEntry;
use App\Models\User;
use Illuminate\Http\Request;

/** Writes down who did what. An entry that cannot be written stops what it tells of. */
final readonly class Trail
{
    private const LONGEST = 500;

    public function __construct(private Request $request) {}

    /** @param string $about in words, without any value of a cell */
    public function note(TrailAct $act, ?User $person, string $about = '', ?Migration $migration = null): void
    {
        TrailEntry::query()->create([
            'act' => $act,
            'user_id' => $person?->id,
            'migration_id' => $migration?->id,
            'about' => mb_substr($about, 0, self::LONGEST),
            'address' => (string) $this->request->ip(),
        ]);
    }
}
