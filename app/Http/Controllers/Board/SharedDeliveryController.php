<?php

declare(strict_types=1);

namespace App\Http\Controllers\Board;

use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Http\Requests\Board\DemandOneDatasetRequest;
use App\Models\LandingDemand;
use App\Models\Migration;
use App\Models\Tally;
use App\Models\TrailAct;
use App\Models\User;
use App\Policies\Act;
use App\Queries\Board\SharedDeliveries;
use App\Queries\Review\Masks;
use App\Questions\Answers;
use App\Questions\WhereRowsWent;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Landing\SharedRows;
use NineTally\Core\Row\Side;

/**
 * That nothing fell between datasets: of each delivery that several of them use, the rows that none takes, and those that several do.
 *
 * @phpstan-import-type Shared from SharedRows
 */
final class SharedDeliveryController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function index(Request $request, Migration $migration, SharedDeliveries $shared, Answers $answers): JsonResponse
    {
        $items = [];
        foreach ($shared->of($migration) as ['side' => $side, 'byPlace' => $byPlace, 'files' => $files, 'tallies' => $tallies]) {
            $answer = $answers->to(WhereRowsWent::of($side, $byPlace, $tallies));
            /** @var Shared|null $found */
            $found = $answer->content;
            $items[] = [
                ...$answer->progress(),
                'side' => $side->value,
                'byPlace' => $byPlace,
                'files' => $files,
                'alone' => $this->said(LandingDemand::standing($migration, $side, $files)),
                'datasets' => array_map(static fn(Tally $tally): array => [
                    'id' => $tally->dataset_id,
                    'name' => $tally->dataset->name,
                    'tally' => $tally->number,
                ], $tallies),
                'found' => $found === null ? null : $this->shown($found, $tallies, $side, $this->person($request)),
            ];
        }

        return response()->json(['items' => $items, 'mayWork' => $this->person($request)->can('act', [$migration, Act::Work])]);
    }

    /** That each row lands in one dataset alone, or that this is demanded no longer: what was said before stays. */
    public function demand(DemandOneDatasetRequest $request, Migration $migration, Trail $trail): Response
    {
        $about =
            ($request->boolean('isDemanded') ? 'each row in one dataset alone: ' : 'no longer in one dataset alone: ').
            implode(', ', $request->files());
        DB::transaction(function () use ($request, $migration, $trail, $about): void {
            $person = $this->person($request);
            $trail->note(TrailAct::ChangedTerms, $person, $about, $migration);
            LandingDemand::enter($migration, $request->side(), $request->files(), $request->boolean('isDemanded'), $person);
        });

        return response()->noContent();
    }

    /** @return array{isDemanded: bool, person: string, at: string}|null */
    private function said(?LandingDemand $demand): ?array
    {
        return $demand === null
            ? null
            : ['isDemanded' => $demand->is_demanded, 'person' => $demand->user->name, 'at' => $demand->created_at->toIso8601String()];
    }

    /**
     * How a row begins may hold what somebody may not see.
     *
     * @param  Shared  $found
     * @param  list<Tally>  $tallies
     * @return Shared
     */
    private function shown(array $found, array $tallies, Side $side, User $person): array
    {
        foreach ($tallies as $tally) {
            $mask = $this->masks->ofSide($tally->dataset, $side, $person);
            if ($mask->hidesAnything()) {
                foreach ($found['told'] as $list => $rows) {
                    foreach ($rows as $place => $row) {
                        $found['told'][$list][$place]['text'] = $mask->text($row['text']);
                    }
                }
            }
        }

        return $found;
    }
}
