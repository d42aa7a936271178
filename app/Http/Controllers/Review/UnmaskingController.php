<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Models\TrailAct;
use App\Models\Unmasking;
use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Who had sensitive values shown, and when. */
final class UnmaskingController extends Controller
{
    private const LISTED = 200;

    public function __construct(private readonly Trail $trail) {}

    public function index(Dataset $dataset): JsonResponse
    {
        $all = Unmasking::query()->with('user')->where('dataset_id', $dataset->id)->orderByDesc('id')->limit(self::LISTED)->get();

        return response()->json(['items' => array_values($all->map($this->view(...))->all())]);
    }

    public function store(Request $request, Dataset $dataset): JsonResponse
    {

        return response()->json($this->view($this->enter($dataset, $this->person($request), Unmasking::MINUTES)), Response::HTTP_CREATED);
    }

    /** Masks them again before their time. */
    public function destroy(Request $request, Dataset $dataset): Response
    {
        $this->enter($dataset, $this->person($request), 0);

        return response()->noContent();
    }

    private function enter(Dataset $dataset, User $person, int $minutes): Unmasking
    {
        $this->trail->note(TrailAct::Unmasked, $person, $minutes === 0 ? "{$dataset->name}, ended" : $dataset->name, $dataset->migration);

        return Unmasking::query()->create([
            'dataset_id' => $dataset->id,
            'user_id' => $person->id,
            'created_at' => now(),
            'until' => now()->addMinutes($minutes),
        ]);
    }

    /** @return array{person: string, at: string, until: string} */
    private function view(Unmasking $unmasking): array
    {
        return [
            'person' => $unmasking->user->name,
            'at' => $unmasking->created_at->toIso8601ZuluString(),
            'until' => $unmasking->until->toIso8601ZuluString(),
        ];
    }
}
