<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sources;

use App\Actions\Access\Trail;
use App\Actions\Sources\DrawDataset;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Schedule;
use App\Models\TrailAct;
use App\Queries\Sources\ScheduleView;
use Carbon\CarbonImmutable;
use Cron\CronExpression;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\ValidationException;

/** When a dataset is drawn and tallied by itself, and what became of it. */
final class ScheduleController extends Controller
{
    public function __construct(private readonly ScheduleView $view) {}

    public function show(Dataset $dataset): JsonResponse
    {
        return response()->json($this->view->ofDataset($dataset));
    }

    public function calendar(Migration $migration): JsonResponse
    {
        return response()->json($this->view->ofMigration($migration));
    }

    public function keep(Request $request, Dataset $dataset, Trail $trail): JsonResponse
    {
        /** @var array{expression: string, zone: string, isOn: bool} $asked */
        $asked = $request->validate([
            'expression' => ['required', 'string', 'max:100'],
            'zone' => ['required', 'timezone:all'],
            'isOn' => ['required', 'boolean'],
        ]);
        $expression = preg_replace('/\s+/', ' ', trim($asked['expression'])) ?? '';
        if (substr_count($expression, ' ') !== 4 || ! CronExpression::isValidExpression($expression)) {
            throw ValidationException::withMessages([
                'expression' =>
                    'A time of cron has five fields: minute, hour, day of the month, month, day of the week, such as 0 6 * * 1 for '.
                    'Mondays at six.',
            ]);
        }
        $person = $this->person($request);
        $dataset->getConnection()->transaction(static function () use ($dataset, $asked, $expression, $person, $trail): void {
            $isOn = (bool) $asked['isOn'];
            Schedule::query()->updateOrCreate(['dataset_id' => $dataset->id], [
                'expression' => $expression,
                'zone' => $asked['zone'],
                'is_on' => $isOn,
                // Times before now are not made up.
                'considered_at' => CarbonImmutable::now(),
                'user_id' => $person->id,
            ]);
            $about = "{$dataset->name}: {$expression} ({$asked['zone']}), ".($isOn ? 'on' : 'off');
            $trail->note(TrailAct::KeptSchedule, $person, $about, $dataset->migration);
        });

        return response()->json($this->view->ofDataset($dataset));
    }

    /** Both sides now, whatever the schedule says. */
    public function draw(Request $request, Dataset $dataset, DrawDataset $draw): JsonResponse
    {
        $draw($dataset, $this->person($request));

        return response()->json($this->view->ofDataset($dataset), Response::HTTP_ACCEPTED);
    }
}
