<?php

declare(strict_types=1);

namespace App\Http\Requests\Prepare;

use App\Models\Dataset;
use App\Models\User;
use App\Queries\Review\Masks;
use Illuminate\Foundation\Http\FormRequest;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;

/** Steps that are tried; the published schema of plans is held against them. */
final class TryPreparationRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'side' => ['required_without:reference', 'in:source,target'],
            'reference' => ['string', 'max:200'],
            'preparation' => ['present', 'array', 'max:200'],
            'chosen' => ['nullable', 'string'],
            'column' => ['string', 'max:1000'],
        ];
    }

    /** The name of the reference whose steps are tried; null: those of a side are. */
    public function reference(): ?string
    {
        return $this->filled('reference') ? $this->string('reference')->toString() : null;
    }

    public function side(): Side
    {
        return Side::from($this->string('side')->toString());
    }

    public function chosen(): ?string
    {
        return $this->filled('chosen') ? $this->string('chosen')->toString() : null;
    }

    /** Whose values are asked about; '' where that is no question. */
    public function column(): string
    {
        return $this->string('column')->toString();
    }

    /**
     * The rules under which the steps run, of a side or of a reference, with the values in them that were masked for this person.
     *
     * @throws \NineTally\Core\Plan\UnusablePlan
     */
    public function preparedRules(Dataset $dataset, Masks $masks, User $person): SideRules
    {
        $normalized = static fn(array $plan): array => Plan::fromJson(CanonicalJson::of($plan))->toArray();
        $sent = json_decode($this->getContent(), true, 64);
        $sent = is_array($sent) ? $sent : [];
        $reference = $this->reference();
        // What is empty is not there: an empty map cannot be told from an empty list.
        $said = static fn(mixed $part): array => is_array($part) ? array_filter($part, static fn(mixed $value): bool => $value !== []) : [];
        $rules = $said(['preparation' => $sent['preparation'] ?? []] + (is_array($sent['reads'] ?? null) ? $sent['reads'] : []));
        $references = $said([...$said($sent['references'] ?? []), ...($reference === null ? [] : [$reference => $rules])]);
        $sides = $reference === null && $rules !== [] ? [$this->side()->value => $rules] : [];
        $plan = Plan::fromJson(CanonicalJson::of($masks->opened($dataset, [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [['source' => '?', 'target' => '?']],
            'columnPairs' => [],
            ...$said(['sides' => $sides, 'references' => $references]),
        ], $normalized, $person)));

        return $reference === null ? $plan->side($this->side()) : $plan->reference($reference);
    }
}
