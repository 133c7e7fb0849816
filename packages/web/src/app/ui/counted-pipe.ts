import { Pipe, type PipeTransform } from '@angular/core';
import { counted } from '@stravel/core';

/** A count with its word in a template: 3 levels. */
@Pipe({ name: 'counted' })
export class CountedPipe implements PipeTransform {
  transform(count: number, one: string, many?: string): string {
    return counted(count, one, many);
  }
}
