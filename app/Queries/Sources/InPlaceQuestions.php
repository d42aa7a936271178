<?php

declare(strict_types=1);

namespace App\Queries\Sources;

use App\Adapters\Sources\InPlace\AsksInPlace;
use App\Adapters\Sources\InPlace\InPlaceQuestion;
use App\Adapters\Sources\SourceProblem;
use App\Adapters\Sources\Sources;
use App\Models\Dataset;
use App\Models\PlanDraft;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Plan\PlainRules;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/**
 * Whether both databases of a dataset can be asked which rows they have alike, before any is drawn.
 *
 * @phpstan-import-type Drawn from DrawnQueries
 */
final readonly class InPlaceQuestions
{
    public function __construct(private Sources $sources, private DrawnQueries $queries) {}

    /** @return string|null why they cannot be; null when they can */
    public function hindrance(Dataset $dataset): ?string
    {
        $queries = $this->queries->of($dataset);
        foreach (['source', 'target'] as $side) {
            if (! isset($queries[$side]) || count($queries[$side]) !== 1) {
                return "the {$side} was not drawn from one table or query";
            }
            $kind = $this->sources->kindOf($dataset->migration, $queries[$side][0]['query']['source']);
            if ($kind === null || ! $kind->asksInPlace()) {
                return "the {$side} is no database that can be asked so";
            }
        }
        $plan = $this->plan($dataset);
        if ($plan === null) {
            return 'there is no plan with a key yet';
        }
        $hindrances = PlainRules::hindrances($plan);

        return $hindrances === [] ? null : 'rows of equal bytes are not sure to agree under its plan: '.implode('; ', $hindrances);
    }

    /**
     * @throws SourceProblem when it cannot be asked
     * @throws UnreadableFile
     */
    public function of(Dataset $dataset): InPlaceQuestion
    {
        $hindrance = $this->hindrance($dataset);
        $plan = $this->plan($dataset);
        if ($hindrance !== null || $plan === null) {
            throw new SourceProblem('Both sides cannot be asked where they stand, for '.($hindrance ?? 'there is no plan').'.');
        }
        $queries = $this->queries->of($dataset);
        $source = $this->side($dataset, $queries['source'] ?? []);
        $target = $this->side($dataset, $queries['target'] ?? []);

        return new InPlaceQuestion(
            ['source' => $source[0], 'target' => $target[0]],
            ['source' => $source[1], 'target' => $target[1]],
            ['source' => $plan->keyNames(Side::Source), 'target' => $plan->keyNames(Side::Target)],
            ['source' => $plan->pairedNames(Side::Source), 'target' => $plan->pairedNames(Side::Target)],
        );
    }

    /**
     * @param  list<Drawn>  $queries
     * @return array{AsksInPlace, string}
     */
    private function side(Dataset $dataset, array $queries): array
    {
        $query = $queries[0]['query'] ?? throw new SourceProblem('It was not drawn.');
        $database = $this->sources->database($dataset->migration, $query['source']);
        if (! $database instanceof AsksInPlace) {
            throw new SourceProblem("{$query['source']} is no database that can be asked so.");
        }

        return [$database, rtrim(trim($database->bound($query['sql'], $query['values'] ?? [])), ';')];
    }

    private function plan(Dataset $dataset): ?Plan
    {
        $draft = $dataset->draftNow();

        return $draft === null || $draft->keyNames() === [] ? null : PlanDraft::planOf($draft->document);
    }
}
