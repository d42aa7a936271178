<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sign;

use App\Actions\Access\Trail;
use App\Actions\Sign\SetLimits;
use App\Http\Controllers\Controller;
use App\Http\Requests\Sign\LimitsRequest;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\SigningTerms;
use App\Models\TrailAct;
use App\Policies\Act;
use App\Queries\Sign\LimitChoices;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/** What is good enough: in the plan of a dataset, and for all datasets of a migration. */
final class LimitController extends Controller
{
    public function show(Request $request, Dataset $dataset, LimitChoices $choices): JsonResponse
    {
        $draft = $dataset->draftNow();

        return response()->json([
            'limits' => $draft->document['limits'] ?? [],
            'inherited' => SigningTerms::of($dataset->migration)['limits'],
            'draft' => $draft?->number,
            'choices' => $choices->of($dataset),
            'mayChange' => $this->person($request)->can('act', [$dataset->migration, Act::SetLimits]),
        ]);
    }

    public function update(LimitsRequest $request, Dataset $dataset, SetLimits $setLimits, LimitChoices $choices): JsonResponse
    {
        $setLimits($dataset, $request->limits(), $request->integer('draft'), $this->person($request));

        return $this->show($request, $dataset, $choices);
    }

    public function terms(Request $request, Migration $migration): JsonResponse
    {
        $standing = $migration->load('signingTerms.user')->signingTerms;

        return response()->json([
            ...SigningTerms::of($migration),
            'by' => $standing?->user->name,
            'at' => $standing?->created_at->toIso8601ZuluString(),
            'choices' => LimitChoices::ofMigration(),
            'mayChange' => $this->person($request)->can('act', [$migration, Act::SetLimits]),
        ]);
    }

    /** What counted before stays, for tallies whose runs began under it. */
    public function changeTerms(LimitsRequest $request, Migration $migration, Trail $trail): JsonResponse
    {
        $person = $this->person($request);
        $terms = [
            'limits' => $request->limits(),
            'needsCheck' => $request->boolean('needsCheck'),
            'maySignTwice' => $request->boolean('maySignTwice'),
            'mayAcceptOwn' => $request->boolean('mayAcceptOwn'),
            'mayLink' => $request->boolean('mayLink'),
            ...$request->keeping(SigningTerms::of($migration)),
        ];
        DB::transaction(static function () use ($migration, $terms, $person, $trail): void {
            $changes = SigningTerms::changes(SigningTerms::of($migration->load('signingTerms')), $terms);
            SigningTerms::query()->create(['migration_id' => $migration->id, 'terms' => $terms, 'user_id' => $person->id]);
            $trail->note(TrailAct::ChangedTerms, $person, implode('; ', $changes) ?: 'as it was', $migration);
        });

        return $this->terms($request, $migration);
    }
}
