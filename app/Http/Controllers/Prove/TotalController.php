<?php

declare(strict_types=1);

namespace App\Http\Controllers\Prove;

use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Http\Requests\Prove\PublishRequest;
use App\Models\PublishedFigure;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\TrailAct;
use App\Queries\Prove\TotalPicture;
use App\Queries\Prove\TotalsOfTally;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Plan\CanonicalJson;

/** The control totals of a tally, and their groups. */
final class TotalController extends Controller
{
    public function __construct(private readonly TotalsOfTally $totals, private readonly Masks $masks) {}

    public function index(Request $request, Tally $tally): JsonResponse
    {
        $mask = $this->mask($request, $tally);

        return response()->json(['items' => $this->totals->all($tally, $mask), 'since' => $this->totals->since($tally, $mask)]);
    }

    public function groups(Request $request, Tally $tally, int $number): JsonResponse
    {
        return response()->json(
            $this->totals->groups($this->total($tally, $number), $this->from($request), $tally, $this->mask($request, $tally)),
        );
    }

    /** Figures that others published: what was published of a group before stays, and the newest stands. */
    public function publish(PublishRequest $request, Tally $tally, int $number, Trail $trail): Response
    {
        $of = $this->total($tally, $number)->total();
        $total = CanonicalJson::of($of->toArray());
        $person = $this->person($request);
        DB::transaction(static function () use ($request, $tally, $of, $total, $person, $trail): void {
            $about = "{$tally->dataset->name}, {$of->sentence()}: ".count($request->figures())." figures of {$request->publisher()}";
            $trail->note(TrailAct::Published, $person, $about, $tally->dataset->migration);
            foreach ($request->figures() as ['labels' => $labels, 'figure' => $figure]) {
                PublishedFigure::query()->create([
                    'dataset_id' => $tally->dataset_id,
                    'total' => $total,
                    'labels' => $labels,
                    'figure' => $figure,
                    'publisher' => $request->publisher(),
                    'user_id' => $person->id,
                ]);
            }
        });

        return response()->noContent();
    }

    /** The groups of a page as paired bars, each as high as its row in the table beside it. */
    public function picture(Request $request, Tally $tally, int $number): Response
    {
        $total = $this->total($tally, $number);
        $isMasked = $this->mask($request, $tally)->hidesTotal($total->total());
        $groups = $isMasked ? [] : $this->totals->page($total, $this->from($request), TotalsOfTally::PAGE);

        return response(TotalPicture::of($groups)->svg(), headers: ['Content-Type' => 'image/svg+xml']);
    }

    private function total(Tally $tally, int $number): TallyTotal
    {
        return TallyTotal::query()->where(['tally_id' => $tally->id, 'number' => $number])->firstOrFail();
    }

    private function from(Request $request): int
    {
        $request->validate(['from' => ['integer', 'min:1', 'max:1000000']]);

        return max(1, $request->integer('from', 1));
    }

    private function mask(Request $request, Tally $tally): Mask
    {
        return $this->masks->forPerson($this->person($request), $tally);
    }
}
