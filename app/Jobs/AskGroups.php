<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Sources\DrawDifferingGroups;
use App\Actions\Sources\FailDraw;
use App\Adapters\Sources\SourceProblem;
use App\Models\Draw;
use App\Models\DrawState;
use App\Problems\Conflict;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/** Asks both databases of a draw which groups of rows differ, and has those drawn. Run again it asks anew. */
final class AskGroups implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly int $draw) {}

    public function handle(DrawDifferingGroups $groups, FailDraw $fail): void
    {
        $draw = $this->asking();
        if ($draw === null) {
            return;
        }
        try {
            $groups($draw);
        } catch (Conflict|NineTallyException|SourceProblem $problem) {
            $fail($draw, $problem->getMessage());
        }
    }

    public function failed(): void
    {
        $draw = $this->asking();
        $draw === null || app(FailDraw::class)($draw, 'Both databases could not be asked to the end. Draw it again, or as a whole.');
    }

    private function asking(): ?Draw
    {
        return Draw::query()->whereKey($this->draw)->where('state', DrawState::Asking->value)->first();
    }
}
